<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { RouterLink } from 'vue-router'

import { answer, client, type UnreadReview } from '../api/client'
import { useAttempt } from '../api/attempt'
import { rungShort } from '../draw/words'
import ProblemNote from './ProblemNote.vue'

/** What instructors have said of one's takes that one has not read yet; a take that is opened is read. */
const unread = ref<UnreadReview[]>([])
const { problem, attempt } = useAttempt()
onMounted(() =>
  attempt(async () => {
    unread.value = await answer(client.GET('/reviews/unread'))
  }),
)
const markRead = (takeId: string) =>
  attempt(async () => {
    await answer(client.POST('/takes/{takeId}/read', { params: { path: { takeId } } }))
    unread.value = unread.value.filter((r) => r.review.takeId !== takeId)
  })
</script>

<template>
  <ProblemNote v-if="problem" :problem="problem" />
  <section
    v-if="unread.length"
    data-test="unread-reviews"
    class="sheet"
    aria-label="Your takes were heard"
  >
    <h2>Your takes were heard</h2>
    <p v-for="r in unread" :key="r.review.takeId">
      <b>{{ r.review.author }}</b> on
      <RouterLink :to="`/takes/${r.review.takeId}`"
        >{{ r.drillName }}, {{ rungShort(r.rung) }}</RouterLink
      >: <b>{{ r.review.accepted ? 'accepted.' : 'once more.' }}</b>
      <template v-if="r.review.note"> “{{ r.review.note }}”</template>
      <button type="button" class="link small read" @click="markRead(r.review.takeId)">read</button>
    </p>
  </section>
</template>

<style scoped>
section {
  border-left: 10px solid var(--ink);
}
.read {
  margin-left: var(--s3);
}
</style>
