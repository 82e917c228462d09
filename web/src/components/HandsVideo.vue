<script setup lang="ts">
import { ElButton } from 'element-plus'
import { ref, watch } from 'vue'

import { answer, client, type Take } from '../api/client'
import { useAttempt } from '../api/attempt'
import ProblemNote from './ProblemNote.vue'

/** The hands, at the time that is heard; deleted by the student or an instructor. */
const props = defineProps<{ takeId: string; video: NonNullable<Take['video']>; at?: number }>()
const emit = defineEmits<{ deleted: [] }>()
const { problem, attempt } = useAttempt()
const film = ref<HTMLVideoElement>()
const sure = ref(false)

/** How far the picture may be from the sound before it is moved, in s: more is seen. */
const apart = 0.12
let still: ReturnType<typeof setTimeout> | undefined

watch(
  () => props.at,
  (at) => {
    const video = film.value
    if (!video || at === undefined) return
    const due = Math.max(0, at - props.video.startsAt)
    if (Math.abs(video.currentTime - due) > apart) video.currentTime = due
    // It goes as long as the sound does.
    clearTimeout(still)
    still = setTimeout(() => video.pause(), 200)
    if (video.paused) void video.play().catch(() => undefined)
  },
)
const remove = () =>
  attempt(async () => {
    await answer(
      client.DELETE('/takes/{takeId}/video', { params: { path: { takeId: props.takeId } } }),
    )
    emit('deleted')
  })
</script>

<template>
  <section data-test="hands-video" class="sheet stack hands" aria-label="Hands on video">
    <ProblemNote v-if="problem" :problem="problem" />
    <video
      ref="film"
      muted
      playsinline
      preload="auto"
      :src="`/api/takes/${takeId}/video`"
      aria-label="Hands on video, with the sound"
    />
    <div class="row">
      <p class="small quiet grow">
        Only the student and their instructors see it. It goes along with the sound.
      </p>
      <template v-if="sure">
        <span data-test="delete-video-sure">Deleted, it is gone for good.</span>
        <el-button data-test="delete-video-now" @click="remove">Delete it</el-button>
        <el-button @click="sure = false">Keep it</el-button>
      </template>
      <el-button v-else data-test="delete-video" @click="sure = true">Delete the video</el-button>
    </div>
  </section>
</template>

<style scoped>
.hands {
  max-width: 680px;
}
video {
  width: 100%;
  max-height: 60vh;
  border-radius: var(--round);
  background: #000;
}
</style>
