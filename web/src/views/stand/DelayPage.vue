<script setup lang="ts">
import { ElButton, ElSegmented } from 'element-plus'
import { computed, onBeforeUnmount, ref } from 'vue'

import { Problem } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { clickTimes, delayNow, keepDelay } from '../../audio/delay'
import { newEarWorker } from '../../audio/ear'
import { Metronome } from '../../audio/metronome'
import { chosenMicrophone } from '../../audio/microphones'
import { Recorder } from '../../audio/recorder'
import { StandCore, type Delayed } from '../../audio/standCore'
import { sampleOf } from '../../audio/wav'
import ProblemNote from '../../components/ProblemNote.vue'
import { dayOf } from '../../draw/words'
import MicrophoneChoice from './MicrophoneChoice.vue'
import { voice, volume } from './choices'

/** Finds out how late the clicks of this device are in its recordings. */
const way = ref<'heard' | 'played'>('heard')
const ways = [
  { label: 'The microphone hears the click', value: 'heard' },
  { label: 'I play on the click', value: 'played' },
]
const running = ref(false)
const found = ref<Delayed>()
const { problem, attempt } = useAttempt()
const known = computed(() => delayNow())

let worker: Worker | undefined
let context: AudioContext | undefined
let recorder: Recorder | undefined
function close() {
  recorder?.close()
  void context?.close()
  recorder = context = undefined
}
onBeforeUnmount(() => {
  close()
  worker?.terminate()
})

const interrupted = new Problem(
  'The sound was interrupted',
  'A call, another program or sleep has taken it away. Measure once more.',
)

/** After the last click, s: what comes late must still be recorded. */
const after = 1.2

async function measure() {
  found.value = undefined
  running.value = true
  try {
    await attempt(listen)
  } finally {
    running.value = false
    close()
  }
}
async function listen() {
  context = new AudioContext({ latencyHint: 'interactive' })
  await context.resume()
  let lost: (why: Problem) => void = () => undefined
  const gone = new Promise<never>((_, reject) => (lost = reject))
  gone.catch(() => undefined)
  const away = new Problem('The input went away', 'Plug it in again, then measure once more.')
  context.onstatechange = () => context?.state !== 'running' && lost(interrupted)
  recorder = await Recorder.open(
    context,
    chosenMicrophone.value,
    () => undefined,
    () => lost(away),
  )
  const { all, measured } = clickTimes(way.value === 'played')
  const start = context.currentTime + 0.5
  const rate = context.sampleRate
  const until = start + all.at(-1)! + after
  const chunks: Float32Array[] = []
  let first: number | undefined
  let whole: () => void = () => undefined
  const heard = new Promise<void>((resolve) => (whole = resolve))
  // By the clock of the sound: that of the page may be ahead of it.
  recorder.start((samples, from) => {
    first ??= from / rate
    chunks.push(samples)
    if (from / rate >= until) whole()
  })
  const click = new Metronome(context, {
    ...voice.value,
    volume: Math.max(0.5, volume.value / 100),
  })
  click.play(all.map((t) => ({ at: start + t, weight: 'beat' })))
  await Promise.race([heard, gone])
  await recorder.stop()
  const samples = Int32Array.from(
    chunks.flatMap((c) => [...c]),
    sampleOf,
  )
  worker ??= newEarWorker() as Worker
  found.value = await new StandCore(worker).ask(
    'delay',
    {
      rate,
      clicks: measured.map((t) => start + t - (first ?? start)),
      played: way.value === 'played',
    },
    samples,
  )
  if (found.value.sure) keepDelay({ seconds: found.value.seconds, at: new Date().toISOString() })
}
</script>

<template>
  <div class="stack delay">
    <h1>Delay of this device</h1>
    <p class="lead">
      A click leaves the loudspeaker late, and what the microphone hears arrives late. Once it is
      known by how much, a take says whether you play ahead of the click or behind it; until then
      only where the recording has the click in it.
    </p>
    <ProblemNote v-if="problem" :problem="problem" />
    <section class="sheet stack">
      <MicrophoneChoice :busy="running" :allowed="!!found" />
      <el-segmented
        v-model="way"
        :options="ways"
        :disabled="running"
        class="ways"
        aria-label="How it is found"
      />
      <p v-if="way === 'heard'">
        Without headphones, the sound turned up, and quiet for a quarter of a minute.
      </p>
      <p v-else>
        Four clicks count you in; then play one short note on each of sixteen. With headphones this
        is the way; your own habit of coming early or late goes into it.
      </p>
      <div class="row">
        <el-button
          data-test="measure"
          type="primary"
          size="large"
          :disabled="running"
          @click="measure"
          >{{ running ? 'Listening …' : known ? 'Measure again' : 'Measure' }}</el-button
        >
      </div>
      <p v-if="found" data-test="delay-found" class="found" role="status">
        <b>{{ found.sure ? 'Found: ' : 'Not found. ' }}</b>{{ found.text }}
      </p>
      <p v-if="known" data-test="delay-kept" class="quiet">
        Kept for this input: {{ (1000 * known.seconds).toFixed(0) }} ms, {{ dayOf(known.at) }}. With
        other headphones or another loudspeaker, measure again.
        <button type="button" class="link" @click="keepDelay(undefined)">Forget it</button>
      </p>
    </section>
  </div>
</template>

<style scoped>
.lead {
  max-width: 44em;
}
.ways {
  justify-self: start;
}
.found {
  font-size: var(--t-lead);
}
</style>
