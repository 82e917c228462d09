<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { ElButton, ElMessage } from 'element-plus'
import { computed, onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { answer, client, type SavedSetup } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import ProblemNote from '../../components/ProblemNote.vue'
import { answered, begun } from './reach'

/** Two minutes with the guitar: how far each pair of fingers reaches in comfort. */
const id = String(useRoute().params.id)
const router = useRouter()
const params = { path: { personId: id } }
const saved = ref<SavedSetup>()
const at = ref(begun())
const { problem, attempt } = useAttempt()
onMounted(() =>
  attempt(async () => {
    saved.value = await answer(client.GET('/people/{personId}/setup', { params }))
  }),
)
/** Pairs for which the neck has room. */
const steps = computed(() => (saved.value?.reach ?? []).filter((s) => s.places.length))
const step = computed(() => steps.value[at.value.step])
const place = computed(() => step.value?.places[at.value.place])
const done = computed(() => !!saved.value && !step.value)

function say(comfortable: boolean) {
  at.value = answered(steps.value, at.value, comfortable)
}
const save = () =>
  attempt(async () => {
    if (!saved.value) return
    const header = { 'If-Match': saved.value.revision }
    const body = { ...saved.value.setup, hand: { ...saved.value.setup.hand, ...at.value.hand } }
    await answer(client.PUT('/people/{personId}/setup', { params: { ...params, header }, body }))
    ElMessage({ message: 'The reach is kept.' })
    router.back()
  })
useEventListener('keydown', (e) => {
  if (e.ctrlKey || e.metaKey || e.altKey || e.target instanceof HTMLButtonElement) return
  if (e.key === ' ' && step.value) say(true)
  else if (e.key === 'Enter' && step.value) say(false)
  else return
  e.preventDefault()
})
</script>

<template>
  <div class="stack reach">
    <h1>How far the hand reaches</h1>
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="step && place">
      <p class="quiet">
        Pair {{ at.step + 1 }} of {{ steps.length }}. Warm hands first. The wrist straight, the
        thumb behind the middle finger, nothing forced: what pulls or hurts is too wide. With pain
        stop, and see a doctor or hand therapist if it stays.
      </p>
      <section class="sheet stack place">
        <p class="fingers">
          Finger <b>{{ step.from }}</b> on fret <b class="figures">{{ place.fret }}</b>
        </p>
        <p class="fingers">
          Finger <b>{{ step.to }}</b> on fret <b class="figures">{{ place.fret + step.frets }}</b>
        </p>
        <p class="quiet">Both on string 3, both down at once.</p>
        <div class="row">
          <el-button type="primary" size="large" @click="say(true)">Comfortable</el-button>
          <el-button size="large" @click="say(false)">Too wide</el-button>
          <span class="small quiet"><kbd>space</kbd> comfortable <kbd>Enter</kbd> too wide</span>
        </div>
      </section>
      <p class="small quiet">
        As long as it is comfortable it goes one fret lower, where frets are wider.
        <button v-if="at.step > 0 || at.place > 0" type="button" class="link" @click="at = begun()">
          Begin anew
        </button>
      </p>
    </template>
    <section v-else-if="done" class="sheet stack">
      <h2>That is the reach</h2>
      <ul>
        <li v-for="(mm, pair) in at.hand" :key="pair">
          Fingers {{ String(pair)[0] }} and {{ String(pair)[1] }}:
          <b class="figures">{{ mm }} mm</b>
        </li>
      </ul>
      <p class="small quiet">
        Drills that ask for more say so, with the lowest position at which they fit. It grows by
        itself; measure again in some months.
      </p>
      <div class="row">
        <el-button type="primary" @click="save">Keep it</el-button>
        <el-button @click="at = begun()">Begin anew</el-button>
      </div>
    </section>
  </div>
</template>

<style scoped>
.reach {
  max-width: 760px;
}
.fingers {
  font-size: calc(34px * var(--scale, 1));
  line-height: 1.2;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: var(--t-lead);
}
</style>
