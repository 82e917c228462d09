<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import { ElButton, ElSegmented } from 'element-plus'
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'

import {
  answer,
  client,
  isMeasured,
  Problem,
  problemOf,
  type Source,
  type Stand,
  type Take,
} from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { handIn } from '../../api/takes'
import { newId } from '../../api/ids'
import { readable } from '../../audio/decode'
import { simulatedDevice } from '../../audio/instruments'
import { isAllowed } from '../../audio/microphones'
import { outbox } from '../../audio/outbox'
import { nothing, type Said } from '../../audio/ear'
import { tempoHeard } from '../../audio/tempoHeard'
import type { UnsentTake } from '../../audio/unsent'
import CueList from '../../components/CueList.vue'
import NeckView from '../../components/NeckView.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import TabView from '../../components/TabView.vue'
import UnsentList from '../../components/UnsentList.vue'
import { heardHere } from './heardHere'
import { climbed } from './climbed'
import * as sheet from '../print/sheet'
import ItHurts from '../routine/ItHurts.vue'
import RestView from '../routine/RestView.vue'
import InPain from '../../components/InPain.vue'
import FilmChoice from './FilmChoice.vue'
import FilePlayed, { type PlayedAt } from './FilePlayed.vue'
import MicrophoneCheck from './MicrophoneCheck.vue'
import HearIt from './HearIt.vue'
import HandKeys from './HandKeys.vue'
import { useDeeds, useHand } from './keys'
import InstrumentChoice from './InstrumentChoice.vue'
import { playerOf, steadyPlayer } from './player'
import PlayerForm from './PlayerForm.vue'
import { asTempo, atTempo, stepOf } from './ownTempo'
import Stage from './Stage.vue'
import StandHead from './StandHead.vue'
import StandChoices from './StandChoices.vue'
import { brokenOff, useRecording, type Besides, type Ending } from './recording'
import { midiDevice, rise } from './choices'
import { useTakeShown } from './takeShown'
import Verdict from './Verdict.vue'

const router = useRouter()
const id = String(useRoute().params.id)
const stand = ref<Stand>()
const { problem, busy, doing, attempt, once } = useAttempt()

const source = useStorage<Source>('manudrill source', 'microphone')
const player = ref({ ...steadyPlayer })
const judged = {
  loading: 'What judges a take is being loaded; you can play already.',
  here: 'A take is judged on this device as soon as it ends.',
  'handed in': 'A take is judged once it is handed in: this device cannot do it now.',
}
const sources = [
  { label: 'Microphone', value: 'microphone' },
  { label: 'MIDI', value: 'midi' },
  { label: 'A key', value: 'key' },
  { label: 'File', value: 'file' },
]
// The simulated player is no way to practise: it is tried out, apart from these.
if (source.value === 'simulated') source.value = 'microphone'

const { running, moment, input, heard, hearing, marks, films, core, start, choose, stop } =
  useRecording(
    (made, ending, said) => void ended(made, ending, said),
    () => (problem.value = noRoom),
  )
/** At a tempo of one's own, beside the ladder. */
const own = ref<number>()
/** What is laid out: the rung, or the drill at that tempo. */
const laid = shallowRef<Stand>()
async function layOut() {
  const [now, bpm] = [stand.value, own.value]
  const at = now && core && bpm !== undefined ? await atTempo(now, bpm, core) : now
  if (stand.value !== now || own.value !== bpm) return // it has changed meanwhile
  const rises = at && (at.chart.passes ?? 1) > 1 && !at.chart.free && rise.value > 0
  laid.value = rises ? { ...at, chart: { ...at.chart, riseBpm: rise.value } } : at
}
watch([stand, own, rise], () => layOut().catch((thrown) => (problem.value = problemOf(thrown))))
function backToRung() {
  own.value = undefined
  rise.value = 0
}
/** Changes the tempo from the next take on. */
function change(way: 1 | -1) {
  const rung = stand.value?.assignment.rung
  if (!rung || !core || running.value) return
  clear()
  const bpm = asTempo((own.value ?? rung.bpm) + way * stepOf(stand.value!))
  own.value = bpm === rung.bpm ? undefined : bpm
}
const bpm = computed(() => stand.value?.chart.bpm ?? 0)
/** On paper it lies as it does here, fingers and all. */
function printOut() {
  const at = laid.value ?? stand.value
  if (!at) return
  const file = { drill: at.drill, ladder: at.climbing.ladder }
  sheet.layOut([{ file, drawn: { chart: at.chart, neck: at.neck } }])
  return router.push('/print')
}

async function load() {
  stand.value = await answer(
    client.GET('/assignments/{assignmentId}', { params: { path: { assignmentId: id } } }),
  )
}

onMounted(async () => {
  await once(load, 'Laying out')
  // Who has allowed the microphone sees at once how well it hears.
  if (source.value === 'microphone' && (await isAllowed())) await check()
})

/** Opens the chosen input, so that its level can be seen before the first note. */
const check = () => attempt(choose)

const { take, ours, otherwise, listening, waits, showOurs, show, follow, clear } =
  useTakeShown(load)
/** Shows a take of which something was not so, and lays out what is to be played now. */
async function corrected(now: Take) {
  take.value = now
  await load()
}
/** Hands something in and shows it, or says what went wrong. */
const followed = (takeId: string, send: () => Promise<Take>) => attempt(() => follow(takeId, send))

/** How it is played, where that is no take of the rung by the microphone. */
function besides(): Besides {
  const aside = own.value === undefined && !laid.value?.chart.riseBpm ? undefined : 'ownTempo'
  if (source.value === 'key') return { on: 'key', aside: 'tapped' }
  if (source.value !== 'midi') return { aside }
  const midi = midiDevice.value
  return { on: { midi }, aside: midi === simulatedDevice ? 'tryOut' : aside }
}
/** The one key: play, or stop. */
async function go() {
  if (running.value) return stop()
  rest.reset(0)
  if (source.value === 'file') return fileInput.value?.click()
  clear()
  fileHere.value = undefined
  await once(async () => {
    listening.value = undefined
    await layOut() // it may just have been changed
    if (!laid.value) return
    await start(laid.value, besides())
  }, 'Opening the input')
}

/** Lets the simulated player play. What it has played is shown at the top. */
function tryOut() {
  clear()
  window.scrollTo({ top: 0 })
  const seed = Math.floor(Math.random() * 2 ** 31)
  const path = { assignmentId: id, takeId: newId() }
  const played = () =>
    answer(
      client.PUT('/assignments/{assignmentId}/simulated/{takeId}', {
        params: { path },
        body: playerOf(player.value, seed),
      }),
    )
  return once(() => followed(path.takeId, played), 'The simulated player plays')
}

async function ended(made: UnsentTake, ending: Ending, said?: Said) {
  if (said && said !== nothing && stand.value && !running.value) {
    showOurs(heardHere(made, laid.value ?? stand.value, said))
    // The next take is on the rung that the ladder says now, whether there is a line or not.
    if (core && ending === 'finished' && !made.take.aside)
      stand.value = await climbed(stand.value, said, core)
  }
  if (resting.value && ending === 'stopped') return outbox.discard(made.take.id) // as in a routine
  if (ending === 'finished') {
    listening.value = made.take.id
    await outbox.handIn(made.take.id, (taken) => void show(taken).catch(() => undefined))
    return
  }
  await outbox.look()
  problem.value =
    brokenOff(
      ending,
      'What was played until then is kept: play once more, or hand in what there is.',
    ) ?? problem.value
}

const noRoom = new Problem(
  'There is no room on this device',
  'The recording is kept in memory only: leave this page open until it is handed in. Make room on the device before the next take.',
)
const fileInput = ref<HTMLInputElement>()
/** A file that was dropped or chosen, until its tempo is told. */
const fileHere = shallowRef<File>()
// What is asked, told or refused stands at the top: who chose the file further down is taken
// there.
watch([fileHere, take, problem], (now, was) => {
  if (now.some((that, i) => that && !was[i])) window.scrollTo({ top: 0 })
})
/** In bpm, once it is heard. */
const tempoOfFile = ref<number>()
function offer(file: File | undefined) {
  if (!file || running.value || busy.value) return
  clear()
  problem.value = tempoOfFile.value = undefined
  fileHere.value = file
  if (stand.value)
    void tempoHeard(file, stand.value).then((bpm) => {
      if (fileHere.value === file) tempoOfFile.value = bpm
    })
}
function handInFile({ bpm, asHeard }: PlayedAt) {
  const file = fileHere.value
  if (!file) return
  fileHere.value = undefined
  const takeId = newId()
  return followed(takeId, async () =>
    handIn({
      assignmentId: id,
      takeId,
      source: 'file',
      bpm,
      asHeard,
      notesPerBeat: stand.value?.chart.notesPerBeat,
      file: await readable(file),
      version: stand.value?.assignment.version,
      recordedAt: new Date(Math.min(file.lastModified, Date.now())).toISOString(),
    }),
  )
}
function picked(event: Event) {
  const input = event.target as HTMLInputElement
  offer(input.files?.[0])
  input.value = '' // the same file may be picked again
}

const model = ref<InstanceType<typeof HearIt>>()
/** The note of the drill that is heard. */
const sounding = ref<number>()
const { hurting, places, hurts, tired, rest } = useHand(
  () => stand.value!.assignment.student.id,
  () => running.value && stop(),
)
useDeeds(
  {
    go,
    tired,
    hurts,
    hold: () => running.value && stop(),
    hear: () => model.value?.go(),
    faster: () => change(1),
    slower: () => change(-1),
  },
  () => hurting.value || !stand.value,
)

const resting = computed(() => rest.remaining.value > 0)
const leftToPlay = computed(() => {
  const { countIn, pass } = moment.value
  if (countIn) return 'get ready'
  const word = (besides().aside ? ', does not count' : '') + (films.value ? ', filmed' : '')
  return pass === undefined
    ? 'play to the end'
    : `pass ${pass + 1} of ${laid.value?.chart.passes ?? 1}${word}`
})
const goText = computed(() => {
  if (source.value === 'file') return 'Choose a file'
  return take.value ? 'Play again' : 'Play'
})
</script>

<template>
  <div class="stand" @dragover.prevent @drop.prevent="offer($event.dataTransfer?.files[0])">
    <ProblemNote v-if="problem" :problem="problem" />
    <ItHurts
      v-if="hurting && stand"
      :student-id="stand.assignment.student.id"
      :places="places"
      @mistake="hurting = false"
    />
    <template v-else-if="stand">
      <StandHead
        :stand="stand"
        :own="own"
        :rises="laid?.chart.riseBpm"
        :changes="!!core && source !== 'file'"
        :go-text="goText"
        :busy="busy"
        @go="go"
        @change="change"
        @back="backToRung"
      />

      <InPain v-if="!running" :student-id="stand.assignment.student.id" />
      <p v-if="stand.assignment.set && !running && !take" class="lead">
        {{ stand.assignment.set.author }} has set this tempo: “{{ stand.assignment.set.reason }}”
      </p>

      <Stage
        v-if="running && laid"
        :title="stand.assignment.drillName"
        :left="leftToPlay"
        :chart="laid.chart"
        :neck="stand.neck"
        :moment="moment"
        :marks="marks"
        :input="input"
        :heard="heard"
      >
        <HandKeys @tired="tired" @hurts="hurts" />
        <el-button data-test="stop" type="primary" class="play" @click="stop">Stop</el-button>
      </Stage>
      <RestView
        v-else-if="resting"
        :seconds="rest.remaining.value"
        word="Rest, and shake out"
        text=""
        :next="stand.assignment.drillName"
        :stand="laid ?? stand"
      >
        <p class="lead">
          Lower, if you wish:
          <el-button @click="change(-1)">Slower <kbd>↓</kbd></el-button>
          <el-button @click="change(1)">Faster <kbd>↑</kbd></el-button>
        </p>
      </RestView>
      <p v-else-if="busy" class="count" role="status">{{ doing }} …</p>
      <p v-else-if="waits" data-test="kept-here" class="lead" role="status">
        {{ outbox.fault.value?.title }}. The take is kept on this device and handed in by itself;
        play on.
      </p>
      <p v-else-if="listening && !ours" class="count" role="status">Listening to every note …</p>
      <p v-if="otherwise && !running" class="lead" role="status">
        The studio hears this take a little differently than this device did. What stands here is
        the studio’s word, which counts.
      </p>

      <FilePlayed
        v-if="fileHere && !running"
        :key="fileHere.name"
        :name="fileHere.name"
        :rung="bpm"
        :heard="tempoOfFile"
        @hand-in="handInFile"
        @leave="fileHere = undefined"
      />

      <template v-if="take && !running">
        <Verdict
          v-if="isMeasured(take)"
          :take="take"
          :here="!!ours"
          @corrected="(now) => attempt(() => corrected(now))"
        />
        <section v-else class="sheet stack">
          <h2>This take could not be measured</h2>
          <p>{{ take.summary.failure }}</p>
          <p><RouterLink :to="`/takes/${take.summary.id}`">Listen to it</RouterLink></p>
        </section>
      </template>
      <UnsentList v-if="!running && !busy && (waits || !listening)" :assignment-id="id" />
      <CueList v-if="!running && !resting && !fileHere" class="lead" :cues="stand.cues" />
      <template v-if="!take && !running && !resting">
        <section class="sheet">
          <HearIt
            v-if="core"
            ref="model"
            :ready="hearing === 'here'"
            class="model"
            :stand="stand"
            :core="core"
            @note="(n) => (sounding = n)"
            @problem="(p) => (problem = p)"
          />
          <TabView :chart="(laid ?? stand).chart" :now="sounding" :zoom="[1.35, 2.6]" />
          <p>
            <button data-test="print-out" type="button" class="link" @click="printOut">
              Print, PDF or SVG
            </button>
          </p>
        </section>
        <section class="sheet">
          <NeckView :neck="stand.neck" :chart="stand.chart" :now="sounding" />
        </section>
      </template>

      <section v-if="!running" class="sheet source">
        <FilmChoice v-if="stand.assignment.video" />
        <div class="row">
          <span>Play with</span>
          <el-segmented v-model="source" :options="sources" aria-label="Play with">
            <template #default="{ item }">
              <span data-test="source" :data-of="item.value">{{ item.label }}</span>
            </template>
          </el-segmented>
        </div>
        <template v-if="source !== 'file'">
          <MicrophoneCheck
            v-if="source === 'microphone'"
            :input="input"
            :stamp="heard"
            :busy="busy"
            @choose="check"
          />
          <InstrumentChoice v-else-if="source === 'midi'" />
          <p v-else>
            Tap a letter for each note, with one finger or two, but h, l, n, r or t, which mean
            something here: for your timing alone. It counts for nothing.
          </p>
          <details>
            <summary>Click, count-in and what is shown</summary>
            <StandChoices class="try" rises />
          </details>
          <p class="quiet">
            <template v-if="stand.chart.free">
              The click counts you in, then play as fast as it stays even.
            </template>
            <template v-else>
              The click counts you in, then play with it until it stops.
              <template v-if="source === 'microphone'"
                >Headphones keep it out of the recording.</template
              >
            </template>
          </p>
          <p data-test="judged" :data-of="hearing" class="small quiet" role="status">
            {{ judged[hearing] }}
          </p>
        </template>
        <template v-else>
          <p data-test="drop-here" class="quiet">
            Drop a recording of this drill, or what was played as a MIDI file, anywhere on this
            page, or choose one: up to 20 minutes.
          </p>
        </template>
      </section>
      <details v-if="!running" class="sheet">
        <summary data-test="try-out">Try it out with the simulated player</summary>
        <div class="stack try">
          <p class="quiet">
            It plays this drill with faults of your choice, and shows what would be measured.
            <template v-if="stand.assignment.student.demo"
              >In this demo it plays for an invented student, so that it counts.</template
            >
            <template v-else
              >A try-out counts for nothing: it moves no rung and stands in no record.</template
            >
          </p>
          <PlayerForm v-model="player" />
          <div>
            <el-button data-test="let-it-play" :disabled="busy" @click="tryOut"
              >Let it play</el-button
            >
          </div>
        </div>
      </details>
      <input
        ref="fileInput"
        type="file"
        accept=".wav,.flac,.mid,.midi,audio/*"
        hidden
        @change="picked"
      />
      <p class="small quiet">
        Keep the hand loose. A tired muscle wants a rest; with pain, numbness or tingling, stop for
        today, and see a doctor or hand therapist if it stays.
      </p>
    </template>
  </div>
</template>

<style scoped>
.lead {
  font-size: clamp(18px, 2vw, 24px);
}
.stand {
  display: grid;
  gap: var(--s4);
  min-width: 0;
}
.stand > * {
  min-width: 0;
}
.play {
  height: 64px;
  padding: 0 36px;
  font-size: calc(24px * var(--scale, 1));
}
.count {
  font-size: clamp(40px, 7vw, 96px);
  line-height: 1;
  font-weight: 700;
  text-align: center;
}
summary {
  cursor: pointer;
}
.model {
  margin-bottom: var(--s3);
}
.try {
  margin-top: var(--s3);
}
.source {
  display: grid;
  gap: var(--s3);
}
</style>
