<script setup lang="ts">
import { onKeyStroke, useWakeLock } from '@vueuse/core'
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { RouterLink, useRoute } from 'vue-router'

import { answer, client, Problem, problemOf, type SavedRoutine, type Stand } from '../../api/client'
import { handOf, sayOfHand } from '../../api/hand'
import { planDay, routine as load, standKey, standsOf } from '../../api/routines'
import { settled } from '../../api/takes'
import { isAllowed } from '../../audio/microphones'
import { outbox } from '../../audio/outbox'
import InPain from '../../components/InPain.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import UnsentList from '../../components/UnsentList.vue'
import { aboutMinutes, itemName } from '../../draw/routinewords'
import FilmChoice from '../stand/FilmChoice.vue'
import MicrophoneCheck from '../stand/MicrophoneCheck.vue'
import Stage from '../stand/Stage.vue'
import StandChoices from '../stand/StandChoices.vue'
import { pause, spoken, warmUp } from '../stand/choices'
import { useRecording } from '../stand/recording'
import AfterPlaying from './AfterPlaying.vue'
import ItHurts from './ItHurts.vue'
import RestView from './RestView.vue'
import RoutinePlan from './RoutinePlan.vue'
import RunKeys from './RunKeys.vue'
import TakeTold from './TakeTold.vue'
import { keyOf } from './keys'
import { person } from '../../session'
import SwitchLine from '../bench/SwitchLine.vue'
import { useRun } from './run'
import { say } from './saying'

/** A whole practice with both hands on the guitar: one key, and it runs by itself. */
const route = useRoute()
const id = String(route.params.id)
const day = /^\d{4}-\d{2}-\d{2}$/.test(id) ? id : undefined
const saved = ref<SavedRoutine>()
const fault = shallowRef<Problem>()
const run = shallowRef<ReturnType<typeof useRun>>()
const wake = useWakeLock()

const { running, moment, input, heard, hearing, marks, films, core, start, choose, stop } =
  useRecording(
    (made, ending, said) => void run.value?.ended(made, ending, said),
    () => (fault.value = noRoom),
  )
const noRoom = new Problem(
  'There is no room on this device',
  'The recording is kept in memory only: leave this page open until it is handed in. Make room on the device before the next take.',
)

/** Where it can ache. */
const places = ref<string[]>([])

/** With one of the drills the hands are asked for on video. */
const filmed = ref(false)

/** Drills that were taken back are not played. */
const gone = ref<string[]>([])
/** The routine and what it plays: of the plan, by its day, or one of its own. */
async function lies(): Promise<[SavedRoutine, Stand[]]> {
  if (!day) return Promise.all([load(id), standsOf(id)])
  const { routine, stands } = await planDay(person.value?.id ?? '', day)
  return [routine, stands]
}
async function open() {
  const [kept, stands] = await lies()
  const by = new Map<string, Stand>()
  for (const i of kept.routine.items) {
    const its = stands.filter((s) => s.assignment.drillId === i.drill)
    const there = its.find((s) => s.position === i.position) ?? its.find((s) => !s.position)
    if (i.kind === 'drill' && there) by.set(standKey(i.drill!, i.position), there)
  }
  const items = kept.routine.items.filter(
    (i) => i.kind !== 'drill' || by.has(standKey(i.drill!, i.position)),
  )
  filmed.value = stands.some((s) => s.assignment.video)
  gone.value = kept.routine.items.filter((i) => !items.includes(i)).map((i) => itemName(i, kept))
  saved.value = { ...kept, routine: { ...kept.routine, items } }
  const hand = await handOf(kept.student.id)
  places.value = hand.places
  if (!core || by.size === 0) return
  run.value?.close()
  run.value = useRun(saved.value.routine, by, {
    core,
    running: () => running.value,
    start,
    stop,
    handIn: (made, then) =>
      outbox.handIn(made.take.id, (take) => {
        settled(take, () => left).then(then, () => undefined) // without a line, later
      }),
    setAside: (made) => outbox.discard(made.take.id),
    standNow: (assignmentId, position) =>
      answer(
        client.GET('/assignments/{assignmentId}', {
          params: { path: { assignmentId }, query: { position } },
        }),
      ),
    now: () => performance.now() / 1000,
    pause: () => pause.value,
    warmUp: () => warmUp.value,
  })
  if (await isAllowed()) await check()
}
onMounted(() => attempt(open))
let left = false
onBeforeUnmount(() => {
  left = true
  run.value?.close()
})

async function attempt(action: () => Promise<unknown>) {
  fault.value = undefined
  try {
    await action()
  } catch (thrown) {
    fault.value = problemOf(thrown)
  }
}
const check = () => attempt(choose)

const told = computed(() => run.value?.told.value)
const state = computed(() => told.value?.state)
const phase = computed(() => state.value?.phase ?? 'waiting')
const item = computed(() => saved.value?.routine.items[state.value?.item ?? 0])
const stand = computed(() => run.value?.stand.value)
const secondsLeft = computed(() =>
  Math.max(0, Math.ceil((state.value?.ends ?? 0) - (run.value?.now.value ?? 0))),
)
/** What is played next, where something is. */
const upNext = computed(() => {
  const then = told.value?.then ?? -1
  const next = saved.value?.routine.items[then]
  return next && saved.value ? itemName(next, saved.value) : undefined
})
/** How far the item is; beside the ladder, that is said too. */
const leftNow = computed(() => {
  if (run.value?.warming.value) return 'to warm up, it does not count'
  return [told.value?.left, besides.value, films.value && 'filmed'].filter(Boolean).join(' · ')
})
/** The next takes are at a tempo of one's own. */
const besides = computed(() => {
  const own = run.value?.own.value
  return own === undefined ? undefined : `${own} bpm by your own choice, which does not count`
})
const nextBpm = computed(() => run.value?.own.value ?? stand.value?.assignment.rung.bpm)
const begun = computed(() => phase.value !== 'waiting' || !!state.value?.held)

// The screen stays on while the routine runs.
watch(phase, (now) => {
  if (['waiting', 'over', 'hurt'].includes(now)) void wake.release()
  else if (wake.isSupported.value && !wake.isActive.value) void wake.request('screen')
})
// A tired hand is told too; that it hurts is told by what is shown then.
watch(
  () => state.value?.tired,
  (tired) => tired && saved.value && sayOfHand(saved.value.student.id, { kind: 'tired' }),
)
watch(
  () => run.value?.verdict.value,
  (verdict) => verdict && spoken.value && say(verdict),
)

const press = (key: Parameters<NonNullable<typeof run.value>['press']>[0]) =>
  void run.value?.press(key)
/** Space and Enter start what waits, and hold what runs. */
const startOrHold = () => press(phase.value === 'waiting' ? 'start' : 'hold')
onKeyStroke(true, (event) => {
  if (!run.value || event.repeat || event.ctrlKey || event.metaKey || event.altKey) return
  const on = event.target as HTMLElement
  if (on.closest('input, textarea, [role="slider"], [role="combobox"], [role="dialog"]')) return
  const key = keyOf(event.key)
  if (!key) return
  if (key === 'go' && on.closest('button, a')) return // which it presses
  event.preventDefault()
  if (key === 'go') startOrHold()
  else if (key === 'faster' || key === 'slower') run.value.change(key === 'faster' ? 1 : -1)
  else if (key === 'hear')
    return // drill by drill
  else press(key)
})
</script>

<template>
  <div class="routine" :class="phase">
    <ProblemNote v-if="fault ?? run?.problem.value" :problem="(fault ?? run?.problem.value)!" />
    <template v-if="saved">
      <template v-if="!run">
        <h1>{{ saved.routine.name }}</h1>
        <p v-if="!core || hearing === 'handed in'">
          This device cannot run a routine by itself. Its drills can be played one by one:
        </p>
        <p v-else>All drills of this routine were withdrawn.</p>
        <ul>
          <li v-for="d in saved.drills" :key="d.drillId">
            <RouterLink :to="`/stand/${d.assignmentId}`">{{ d.name }}</RouterLink>
          </li>
        </ul>
        <p><RouterLink data-test="back-to-practice" to="/practice">Back to practice</RouterLink></p>
      </template>

      <Stage
        v-else-if="phase === 'playing' && stand"
        :title="stand.assignment.drillName"
        :left="leftNow"
        :chart="stand.chart"
        :neck="stand.neck"
        :moment="moment"
        :marks="marks"
        :input="input"
        :heard="heard"
      >
        <RunKeys :phase="phase" @press="press" @go="startOrHold" />
      </Stage>

      <template v-else>
        <header>
          <div class="title">
            <h1>{{ saved.routine.name }}</h1>
            <p v-if="!begun" class="quiet">
              {{ aboutMinutes(saved.seconds) }} · {{ saved.author || 'your studio' }} ·
              <RouterLink to="/practice">back to practice</RouterLink>
            </p>
            <p v-else-if="phase === 'pausing' || phase === 'waiting'" class="left">
              {{ told?.left }}
            </p>
          </div>
          <RunKeys :phase="phase" :begun="begun" @press="press" @go="startOrHold" />
        </header>

        <template v-if="phase === 'pausing'">
          <TakeTold :verdict="run.verdict.value" :silent="run.silent.value" :own="item?.text" />
          <p v-if="run.otherwise.value" class="lead" role="status">
            The studio hears {{ run.otherwise.value }} a little differently than this device did;
            its word counts.
          </p>
          <p class="then">
            <template v-if="upNext">{{ upNext }}, {{ nextBpm }} bpm, </template>in
            {{ secondsLeft }} s
          </p>
        </template>

        <RestView
          v-else-if="phase === 'resting' || phase === 'reading'"
          :seconds="secondsLeft"
          :word="state?.tired ? 'Rest, and shake out' : phase === 'resting' ? 'Rest' : ''"
          :text="state?.tired ? '' : (item?.text ?? '')"
          :next="upNext"
          :own="saved.routine.items[told?.then ?? -1]?.text"
          :stand="stand"
          :bpm="nextBpm"
        >
          <p v-if="state?.tired" class="slower">
            Lower, if you wish:
            <button type="button" @click="run.change(-1)">Slower <kbd>↓</kbd></button>
            <button type="button" @click="run.change(1)">Faster <kbd>↑</kbd></button>
            <span v-if="besides">{{ besides }}.</span>
          </p>
        </RestView>

        <section v-else-if="phase === 'over'" data-test="over" class="end">
          <p class="word">Done.</p>
          <p v-if="outbox.all.value.length === 0">What you played is handed in.</p>
          <UnsentList />
          <AfterPlaying :student-id="saved.student.id" :places="places" />
          <p>
            <RouterLink data-test="back-to-practice" to="/practice">Back to practice</RouterLink>
          </p>
        </section>

        <ItHurts
          v-else-if="phase === 'hurt'"
          :student-id="saved.student.id"
          :places="places"
          @mistake="attempt(open)"
        />

        <template v-else>
          <p v-if="state?.why === 'unheard'" data-test="unheard" class="lead" role="status">
            Nothing of the drill was heard twice, so the routine waits. Is the right input chosen?
          </p>
          <InPain v-if="!begun" :student-id="saved.student.id" />
          <p v-if="gone.length" class="quiet" role="status">
            Left out, because they were withdrawn: {{ gone.length }}.
          </p>
          <p v-if="saved.routine.note && !begun" class="lead note">{{ saved.routine.note }}</p>
          <div class="before">
            <RoutinePlan :saved="saved" :at="begun || state ? (state?.item ?? 0) : undefined" />
            <div class="stack">
              <FilmChoice v-if="filmed" />
              <SwitchLine v-model="warmUp" name="Warm up first, at 70 % of the tempo" />
              <MicrophoneCheck :input="input" :stamp="heard" :busy="false" @choose="check" />
              <StandChoices />
              <p data-test="judged" :data-of="hearing" class="small quiet" role="status">
                <template v-if="hearing === 'loading'"
                  >What judges a take is being loaded.</template
                >
                <template v-else-if="hearing === 'here'"
                  >Takes are judged on this device as soon as they end.</template
                >
                <template v-else>Takes are judged once they are handed in.</template>
              </p>
            </div>
          </div>
        </template>
      </template>
    </template>
  </div>
</template>

<style scoped>
.routine {
  min-height: 100vh;
  padding: clamp(12px, 2vw, 40px);
  display: grid;
  align-content: start;
  gap: var(--s4);
  background: var(--ground);
}
.pausing,
.resting,
.reading {
  grid-template-rows: auto minmax(0, 1fr) auto;
  align-content: stretch;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s3) var(--s5);
}
.title {
  flex: 1 1 300px;
}
h1 {
  font-size: clamp(24px, 2.6vw, 48px);
}
.left {
  font-size: clamp(18px, 2.4vw, 44px);
  color: var(--ink-2);
}
.lead {
  font-size: clamp(18px, 2vw, 34px);
  max-width: 40em;
}
.note {
  border-left: 6px solid var(--ink);
  padding-left: var(--s3);
}
.slower {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2) var(--s3);
  font-size: clamp(18px, 2vw, 34px);
}
.slower button {
  border: 1px solid var(--line-2);
  border-radius: var(--round);
  background: none;
  color: var(--ink);
  font: inherit;
  min-height: 44px;
  padding: 6px 14px;
  cursor: pointer;
}
.then {
  font-size: clamp(18px, 2.4vw, 44px);
  font-variant-numeric: tabular-nums;
}
.before {
  font-size: clamp(17px, 1.6vw, 30px);
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(440px, 100%), 1fr));
  gap: var(--s5);
  align-items: start;
}
.end {
  display: grid;
  gap: var(--s4);
  font-size: clamp(18px, 2vw, 34px);
  max-width: 40em;
}
.word {
  font-size: clamp(34px, 5vw, 90px);
  font-weight: 700;
  line-height: 1.1;
}
</style>
