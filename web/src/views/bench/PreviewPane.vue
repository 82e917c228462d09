<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import { computed, defineAsyncComponent, ref } from 'vue'

import type { Damping, Fault, Mend, Preview } from '../../api/client'
import NeckView from '../../components/NeckView.vue'
import TabView from '../../components/TabView.vue'
import type { Place } from '../../draw/neck'
import ChoiceLine from './ChoiceLine.vue'
import DifficultyBox from './DifficultyBox.vue'
import Remarks from './Remarks.vue'

// The staff brings a large library; who looks at tab does not wait for it.
const StaffView = defineAsyncComponent(() => import('../../components/StaffView.vue'))

/** What is being set, on the neck, on paper and in figures. */
const props = defineProps<{
  /** The last one that could be drawn. */
  preview: Preview
  /** Why the present one cannot. */
  faults: Fault[]
  /** The note that is being heard. */
  playing?: number
  free: boolean
}>()
const emit = defineEmits<{
  move: [frets: number, thicker: number]
  finger: [place: Place, finger: number]
  add: [string: number, fret: number]
  mend: [mend: Mend]
  weigh: []
}>()

const paper = useStorage<'tab' | 'staff' | 'both'>('manudrill paper', 'tab')
const papers = [
  { label: 'tab', value: 'tab' },
  { label: 'staff', value: 'staff' },
  { label: 'both', value: 'both' },
] as const

const looked = ref<number>()
const marked = ref<number[]>()
const now = computed(() => props.playing ?? looked.value)
const first = computed(() => props.preview.steps?.[0])
const last = computed(() => props.preview.steps?.at(-1))
/** Whether the click is not divided alike on all rungs. */
const mixed = computed(() =>
  props.preview.steps?.some((s) => s.rung.notesPerBeat !== first.value?.rung.notesPerBeat),
)

const damping = computed(() => {
  const at = now.value ?? 0
  return props.preview.damping?.find((d) => d.from <= at && at <= d.to)
})
const dampers: Record<Damping['with'] | Damping['thickerWith'], string> = {
  palm: 'the palm',
  firstFinger: 'the underside of the first finger',
  otherFinger: 'the second or third finger, for the open string is played',
  damper: 'a damper behind the nut, for both hands are busy',
}
const dampingText = computed(() => {
  const d = damping.value
  if (!d) return ''
  const strings = (all: number[]) => `${all.length === 1 ? 'string' : 'strings'} ${all.join(', ')}`
  const parts = []
  if (d.with === d.thickerWith && d.thinner.length + d.thicker.length)
    parts.push(`${strings([...d.thinner, ...d.thicker])} with ${dampers[d.with]}`)
  else {
    if (d.thicker.length) parts.push(`${strings(d.thicker)} with ${dampers[d.thickerWith]}`)
    if (d.thinner.length) parts.push(`${strings(d.thinner)} with ${dampers[d.with]}`)
  }
  return parts.length
    ? `Note ${(now.value ?? 0) + 1}, string ${d.string}: damp ${parts.join('; ')}.`
    : ''
})
const chordText = computed(() =>
  (props.preview.chords ?? [])
    .filter((c, i, all) => all.findIndex((d) => d.chord.name === c.chord.name) === i)
    .map((c) => `${c.chord.name} (${Object.values(c.chord.roles).join(', ')})`)
    .join('; '),
)
</script>

<template>
  <div v-if="preview.chart && preview.neck" class="pane" :class="{ stale: faults.length > 0 }">
    <section class="sheet picture">
      <NeckView
        :neck="preview.neck"
        :chart="preview.chart"
        :now="now"
        :marked="marked"
        :damping="damping"
        :edit="free ? 'notes' : 'hand'"
        @move="(frets, thicker) => emit('move', frets, thicker)"
        @finger="(place, f) => emit('finger', place, f)"
        @add="(string, fret) => emit('add', string, fret)"
      />
      <p class="small quiet damping">{{ dampingText }}</p>
      <div class="facts">
        <span data-test="notes-a-pass">
          <b class="figures">{{ preview.chart.notes.length }}</b> notes a pass
        </span>
        <span v-if="first">
          <b class="figures">{{ first.secondsPerPass.toFixed(1) }}</b> s at {{ first.rung.bpm }} bpm
        </span>
        <span v-if="first && last">
          <b class="figures"
            >{{ first.notesPerSecond.toFixed(1) }} to {{ last.notesPerSecond.toFixed(1) }}</b
          >
          notes/s
        </span>
        <span v-if="preview.neck.reachMm > 0" data-test="reach-mm">
          <b class="figures">{{ preview.neck.reachMm.toFixed(0) }}</b> mm, lowest to highest fret
        </span>
        <DifficultyBox
          v-if="preview.difficulty"
          :difficulty="preview.difficulty"
          @weigh="emit('weigh')"
        />
      </div>
    </section>
    <section class="sheet">
      <Remarks
        :remarks="faults.length ? [] : (preview.remarks ?? [])"
        :faults="faults"
        @mend="(m) => emit('mend', m)"
        @look="(notes) => (marked = notes)"
      />
    </section>
    <section class="sheet paper">
      <div class="paper-head">
        <p class="small quiet">
          <b>∏</b> down, <b>V</b> up, <b>H</b> hammer-on, <b>P</b> pull-off, <b>T</b> tap,
          <b>S</b> slide, <b>N</b> hammer-on from nowhere; below, fingers
        </p>
        <ChoiceLine
          v-model="paper"
          data-test="shown-as"
          name="Shown as"
          label=""
          :options="papers"
        />
      </div>
      <StaffView v-if="paper !== 'tab'" :chart="preview.chart" :now="now" />
      <TabView
        v-if="paper !== 'staff'"
        :chart="preview.chart"
        :now="now"
        :marked="marked"
        :chords="preview.chords"
        @look="(n) => (looked = n)"
      />
      <p v-if="chordText" class="small">Chords between the hands: {{ chordText }}.</p>
    </section>
    <section
      v-if="preview.steps?.length"
      class="sheet scroll-x"
      tabindex="0"
      aria-label="Tempo ladder"
    >
      <table class="plain">
        <thead>
          <tr>
            <th class="number">bpm</th>
            <th v-for="(s, i) in preview.steps" :key="i" class="number figures">
              {{ s.rung.bpm }}
            </th>
          </tr>
          <tr v-if="mixed">
            <th class="number">notes a beat</th>
            <th v-for="(s, i) in preview.steps" :key="i" class="number figures">
              {{ s.rung.notesPerBeat }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row" class="number">notes per second</th>
            <td v-for="(s, i) in preview.steps" :key="i" class="number figures">
              {{ s.notesPerSecond.toFixed(1) }}
            </td>
          </tr>
          <tr>
            <th scope="row" class="number">seconds a pass</th>
            <td v-for="(s, i) in preview.steps" :key="i" class="number figures">
              {{ s.secondsPerPass.toFixed(1) }}
            </td>
          </tr>
          <tr v-if="(preview.chart.passes ?? 1) > 1">
            <th scope="row" class="number">{{ preview.chart.passes }} passes, seconds</th>
            <td v-for="(s, i) in preview.steps" :key="i" class="number figures">
              {{ s.secondsPerTake.toFixed(1) }}
            </td>
          </tr>
        </tbody>
      </table>
    </section>
  </div>
  <div v-else class="sheet stack">
    <h2>This cannot be played yet</h2>
    <Remarks :remarks="[]" :faults="faults" @mend="(m) => emit('mend', m)" />
  </div>
</template>

<style scoped>
.pane {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s3);
}
.pane > .sheet {
  padding: var(--s3) var(--s4);
}
.stale .picture,
.stale .paper {
  opacity: 0.45;
}
.damping {
  min-height: 1.5em;
}
.facts {
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--s5);
  align-items: baseline;
  font-size: calc(15px * var(--scale, 1));
}
.facts b {
  font-size: var(--t-lead);
}
.paper {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s2);
}
.paper-head {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s1) var(--s4);
  justify-content: space-between;
  align-items: center;
}
.plain th,
.plain td {
  padding: 2px var(--s2);
  border: 0;
  white-space: nowrap;
}
.plain thead th {
  color: var(--ink);
  font-size: var(--t-body);
  font-weight: 700;
}
</style>
