<script setup lang="ts">
import { useWakeLock } from '@vueuse/core'
import { ElButton } from 'element-plus'
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'

import { answer, client, type Stand } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { isAllowed } from '../../audio/microphones'
import ProblemNote from '../../components/ProblemNote.vue'
import { rungWords } from '../../draw/words'
import ItHurts from '../routine/ItHurts.vue'
import InPain from '../../components/InPain.vue'
import MicrophoneCheck from './MicrophoneCheck.vue'
import Stage from './Stage.vue'
import { useRecording } from './recording'
import { click } from './choices'
import HandKeys from './HandKeys.vue'
import { useDeeds, useHand } from './keys'
import { useSeek } from './seek'

/** Short takes find the tempo at which somebody plays a drill clean, in under three minutes. */
const id = String(useRoute().params.id)
const router = useRouter()
const stand = ref<Stand>()
const wake = useWakeLock()
const { problem: loading, attempt } = useAttempt()

const { moment, input, heard, hearing, marks, core, start, choose, stop } = useRecording(
  () => undefined, // of short takes nothing is kept
  () => undefined,
)
const seek =
  core &&
  useSeek(() => stand.value!, {
    core,
    start,
    stop,
    barsCountedIn: () => click.value.countIn,
    now: () => performance.now() / 1000,
    later: (action, ms) => setTimeout(action, ms),
  })
onBeforeUnmount(() => seek?.leave())
onMounted(() =>
  attempt(async () => {
    stand.value = await answer(
      client.GET('/assignments/{assignmentId}', { params: { path: { assignmentId: id } } }),
    )
    if (await isAllowed()) await choose()
  }),
)
const phase = computed(() => seek?.phase.value ?? 'before')
const seeking = computed(() => seek?.seeking.value)
const problem = computed(() => loading.value ?? seek?.problem.value)
watch(phase, (now) => {
  if (now === 'playing' && wake.isSupported.value && !wake.isActive.value)
    void wake.request('screen')
  else if (now === 'over' || now === 'held') void wake.release()
})

const words = { clean: 'Clean', unclean: 'Not clean', unheard: 'Nothing was heard' }
const goText = computed(
  () => ({ before: 'Start', held: 'Go on', over: 'Once more' })[phase.value as 'before'] ?? 'Hold',
)
const takes = computed(() => {
  const search = seeking.value?.search
  return search ? search.clean.length + search.unclean.length + 1 : 1
})
const found = computed(() => (seeking.value?.sure ? seeking.value.found : undefined))
/** It is found where one stands already. */
const same = computed(() => {
  const now = stand.value?.assignment.rung
  const to = found.value?.start
  return !!now && !!to && now.bpm === to.bpm && now.notesPerBeat === to.notesPerBeat
})

/** Starts from the rung that was found. */
const begin = () =>
  attempt(async () => {
    const { assignment, chart } = stand.value!
    const { bpm, low, high, takes } = found.value!
    await answer(
      client.PUT('/assignments/{assignmentId}/found', {
        params: { path: { assignmentId: id }, header: { 'If-Match': assignment.revision } },
        body: { bpm, low, high, takes, notesPerBeat: chart.notesPerBeat },
      }),
    )
    await router.push(`/stand/${id}`)
  })

/** Holds the search where it runs. */
const hold = () => (phase.value === 'playing' || phase.value === 'reading') && seek?.go()
const { hurting, places, hurts, tired } = useHand(() => stand.value!.assignment.student.id, hold)
useDeeds({ go: () => seek?.go(), hold, tired, hurts }, () => hurting.value || !stand.value)
</script>

<template>
  <div class="find">
    <ProblemNote v-if="problem" :problem="problem" />
    <ItHurts
      v-if="hurting && stand"
      :student-id="stand.assignment.student.id"
      :places="places"
      @mistake="hurting = false"
    />
    <template v-else-if="stand">
      <Stage
        v-if="phase === 'playing' && seeking?.next"
        :title="stand.assignment.drillName"
        :left="`short take ${takes}`"
        :chart="seeking.next.chart"
        :neck="stand.neck"
        :moment="moment"
        :marks="marks"
        :input="input"
        :heard="heard"
      >
        <HandKeys @tired="tired" @hurts="hurts" />
        <el-button type="primary" class="go" @click="seek?.go()">Hold</el-button>
      </Stage>
      <section v-else-if="phase === 'reading'" class="told" aria-live="assertive">
        <p class="word">{{ seek?.last.value && words[seek.last.value] }}</p>
        <p class="why figures">then {{ seeking?.rung.bpm }} bpm</p>
      </section>
      <template v-else>
        <InPain :student-id="stand.assignment.student.id" />
        <div class="head">
          <div class="title">
            <h1 data-test="find-tempo">Find my tempo</h1>
            <p class="quiet">
              {{ stand.assignment.drillName }} ·
              <RouterLink data-test="back-to-stand" :to="`/stand/${id}`"
                >back to the stand</RouterLink
              >
            </p>
          </div>
          <el-button type="primary" class="go" :disabled="!core" @click="seek?.go()">
            {{ goText }} <kbd>space</kbd>
          </el-button>
        </div>
        <section v-if="phase === 'over' && seeking?.found" class="sheet stack result">
          <template v-if="found">
            <p class="word">
              <b class="figures">{{ found.bpm }}</b> bpm
            </p>
            <p>
              {{ found.text }} At about this tempo 7 takes of 10 pass the gate; slower, more do.
            </p>
            <p v-if="same">You stand on {{ rungWords(found.start) }} already: stay there.</p>
            <div v-else class="row">
              <el-button type="primary" size="large" @click="begin">
                Start from {{ rungWords(found.start) }}
              </el-button>
              <RouterLink :to="`/stand/${id}`"
                >Stay at {{ rungWords(stand.assignment.rung) }}</RouterLink
              >
            </div>
          </template>
          <p v-else>{{ seeking.found.text }}</p>
        </section>
        <template v-else>
          <p class="lead">
            Short takes with a click, each as even as you can. Clean ones get faster, until it is
            known how fast you play this drill clean: under three minutes. None of them is kept or
            counts.
          </p>
          <p v-if="phase === 'held'" data-test="held" class="lead" role="status">
            Held at {{ seeking?.rung.bpm }} bpm.
          </p>
          <p v-if="!core || hearing === 'handed in'" class="lead" role="alert">
            This device cannot judge takes by itself, so it cannot find your tempo.
          </p>
          <section class="sheet">
            <MicrophoneCheck
              :input="input"
              :stamp="heard"
              :busy="false"
              @choose="attempt(choose)"
            />
          </section>
        </template>
        <p class="small quiet">
          Keep the hand loose. A tired muscle wants a rest; with pain, numbness or tingling, stop
          for today, and see a doctor or hand therapist if it stays.
        </p>
      </template>
    </template>
  </div>
</template>

<style scoped>
.find {
  display: grid;
  gap: var(--s4);
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s3) var(--s5);
}
.title {
  flex: 1 1 260px;
}
.go {
  height: 64px;
  padding: 0 32px;
  font-size: calc(22px * var(--scale, 1));
}
.told {
  min-height: 70vh;
  display: grid;
  align-content: center;
  gap: var(--s4);
}
.word {
  font-size: clamp(34px, 6vw, 110px);
  font-weight: 700;
  line-height: 1.1;
}
.why {
  font-size: clamp(24px, 4vw, 70px);
  color: var(--ink-2);
}
.lead,
.result {
  font-size: clamp(18px, 2vw, 26px);
  max-width: 44em;
}
</style>
