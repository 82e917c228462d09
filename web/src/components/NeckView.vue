<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { Chart, Damping, Neck } from '../api/client'
import {
  arcsOf,
  fretWindow,
  gripsOf,
  handBox,
  markRadius,
  placesOf,
  type Place,
} from '../draw/neck'
import FingerMenu from './neck/FingerMenu.vue'
import { NeckFrame, placeUnder } from './neck/frame'
import GripSteps from './neck/GripSteps.vue'
import HandBox from './neck/HandBox.vue'
import NeckBoard from './neck/NeckBoard.vue'

const props = defineProps<{
  neck: Neck
  chart: Chart
  /** The chart note that sounds or is looked at now. */
  now?: number
  /** Notes that a remark is about. */
  marked?: number[]
  damping?: Damping
  /** What the mouse may do: nothing, move the hand and set fingers, or add notes. */
  edit?: 'hand' | 'notes'
  /** From string to string, in the units of the drawing. */
  gap?: number
  /** Only the frets played and a few around them. */
  cut?: boolean
  /** How much larger than at the bench; there is no editing then. */
  zoom?: number
}>()
const emit = defineEmits<{
  move: [frets: number, thicker: number]
  finger: [place: Place, finger: number]
  add: [string: number, fret: number]
}>()

const box = ref<HTMLElement>()
const { width: boxWidth } = useElementSize(box)
const zoom = computed(() => props.zoom ?? 1)
const width = computed(() => Math.max(320, boxWidth.value) / zoom.value)

const strings = computed(() => props.chart.tuning.length)
const frame = computed(() => {
  const [from, to] = fretWindow(props.neck, props.chart.notes, !props.cut && width.value >= 900)
  return new NeckFrame(props.neck, strings.value, from, to, width.value, props.gap ?? 31)
})
// A drill whose places get several fingers is drawn one place of the hand at a time: that of
// the note that sounds or is pointed at, or the one that was chosen.
const grips = computed(() => gripsOf(props.chart.notes))
const chosen = ref(0)
const shown = computed(() => {
  const at = props.now ?? props.marked?.[0]
  const found = at === undefined ? -1 : grips.value.findIndex((g) => g.notes.has(at))
  return found >= 0 ? found : Math.min(chosen.value, grips.value.length - 1)
})
const grip = computed(() => grips.value[shown.value]!)
const held = computed(() => props.chart.notes.filter((_, i) => grip.value.notes.has(i)))
const places = computed(() => placesOf(held.value))
const ghosts = computed(() => {
  const here = new Set(places.value.map(placeKey))
  return placesOf(props.chart.notes).filter((p) => !here.has(placeKey(p)))
})
const arcs = computed(() => arcsOf(props.chart.notes, grip.value.notes))
const radius = computed(() =>
  markRadius(frame.value.scale, placesOf(props.chart.notes), frame.value.gap),
)
const current = computed(() => (props.now === undefined ? undefined : props.chart.notes[props.now]))
const markedPlaces = computed(
  () => new Set((props.marked ?? []).map((i) => placeKey(props.chart.notes[i]))),
)
const hand = computed(() => (props.edit === 'hand' ? handBox(held.value) : undefined))

function placeKey(p: { string: number; fret: number } | undefined): string {
  return p ? `${p.string}/${p.fret}` : ''
}
/** A string that also sounds open here is not crossed out: the two marks would cover each other. */
const damped = computed(() => {
  const open = places.value.filter((p) => p.fret === 0).map((p) => p.string)
  const all = props.damping ? [...props.damping.thicker, ...props.damping.thinner] : []
  return all.filter((s) => !open.includes(s))
})
/** A slur, above the string for a hammer-on and below it for a pull-off. */
function arcPath(string: number, from: number, to: number): string {
  const a = frame.value.finger(from)
  const b = frame.value.finger(to)
  const side = to > from ? -1 : 1
  const edge = frame.value.y(string) + side * 9
  return `M${a} ${edge} Q${(a + b) / 2} ${edge + side * 9} ${b} ${edge}`
}
const label = computed(() => {
  const p = places.value
  return (
    `Neck with ${p.length} places: ` +
    p.map((q) => `string ${q.string} fret ${q.fret} finger ${q.finger}`).join(', ')
  )
})

// A place is pressed to set its finger.
const asking = ref<Place>()
function ask(place: Place) {
  if (props.edit === 'hand' && place.fret > 0) asking.value = place
}
function choose(f: number) {
  if (asking.value) emit('finger', asking.value, f)
  asking.value = undefined
}
function addAt(event: MouseEvent) {
  if (props.edit !== 'notes') return
  const { string, fret } = placeUnder(frame.value, event)
  emit('add', string, fret)
}

// Notes are added from the keyboard with a cursor of their own.
const cursor = ref<{ string: number; fret: number }>()
function cursorKey(event: KeyboardEvent) {
  if (props.edit !== 'notes') return
  const from = cursor.value ?? { string: 3, fret: 5 }
  if (event.key === 'Enter' || event.key === ' ') {
    event.preventDefault()
    emit('add', from.string, from.fret)
    return
  }
  const step = { ArrowRight: [0, 1], ArrowLeft: [0, -1], ArrowUp: [-1, 0], ArrowDown: [1, 0] }[
    event.key
  ]
  if (!step) return
  event.preventDefault()
  cursor.value = {
    string: Math.min(strings.value, Math.max(1, from.string + (step[0] ?? 0))),
    fret: Math.min(props.neck.topFret, Math.max(0, from.fret + (step[1] ?? 0))),
  }
}
</script>

<template>
  <div ref="box" class="neck">
    <svg
      :width="frame.width * zoom"
      :height="frame.height * zoom"
      :viewBox="`0 0 ${frame.width} ${frame.height}`"
      :role="{ notes: 'application', hand: 'group', none: 'img' }[edit ?? 'none']"
      :aria-label="
        edit === 'notes' ? 'Neck: arrows move the cursor, enter adds a note there' : label
      "
      :tabindex="edit === 'notes' ? 0 : undefined"
      @keydown="cursorKey"
      @focus="cursor ??= { string: 3, fret: 5 }"
      @blur="cursor = undefined"
    >
      <NeckBoard :frame="frame" :tuning="chart.tuning" :sounds="current?.string" :damped="damped" />
      <rect
        v-if="edit === 'notes'"
        class="surface"
        :x="0"
        :y="frame.top - 18"
        :width="frame.width"
        :height="frame.bottom - frame.top + 36"
        @click="addAt"
      />
      <HandBox
        v-if="hand"
        :frame="frame"
        :hand="hand"
        @move="(frets, thicker) => emit('move', frets, thicker)"
      />
      <circle
        v-for="p in ghosts"
        :key="`ghost ${placeKey(p)}`"
        class="ghost"
        :cx="frame.finger(p.fret)"
        :cy="frame.y(p.string)"
        :r="radius * 0.6"
      />
      <path
        v-for="a in arcs"
        :key="`${a.string}/${a.from}/${a.to}`"
        class="arc"
        :d="arcPath(a.string, a.from, a.to)"
      />
      <g
        v-for="p in places"
        :key="placeKey(p)"
        :class="[
          'place',
          {
            now: current?.string === p.string && current?.fret === p.fret,
            marked: markedPlaces.has(placeKey(p)),
            tap: p.hand === 'tap',
            askable: edit === 'hand' && p.fret > 0 && p.hand === 'fret',
          },
        ]"
        :tabindex="edit === 'hand' && p.fret > 0 && p.hand === 'fret' ? 0 : undefined"
        :role="edit === 'hand' && p.fret > 0 && p.hand === 'fret' ? 'button' : undefined"
        :aria-label="
          edit === 'hand' && p.fret > 0 && p.hand === 'fret'
            ? `String ${p.string} fret ${p.fret}, finger ${p.finger}; press to change`
            : undefined
        "
        @click="p.hand === 'fret' && ask(p)"
        @keydown.enter="p.hand === 'fret' && ask(p)"
        @keydown.space.prevent="p.hand === 'fret' && ask(p)"
      >
        <rect
          v-if="p.hand === 'tap'"
          :x="frame.finger(p.fret) - radius"
          :y="frame.y(p.string) - radius"
          :width="radius * 2"
          :height="radius * 2"
          rx="3"
        />
        <circle v-else :cx="frame.finger(p.fret)" :cy="frame.y(p.string)" :r="radius" />
        <text
          :x="frame.finger(p.fret)"
          :y="frame.y(p.string) + radius / 2"
          :font-size="radius * 1.4"
        >
          {{ p.finger }}
        </text>
      </g>
      <circle
        v-if="cursor"
        class="cursor"
        :cx="frame.finger(cursor.fret)"
        :cy="frame.y(cursor.string)"
        r="12"
      />
    </svg>
    <GripSteps
      v-if="grips.length > 1 && !props.zoom"
      :position="grip.position"
      :at="shown"
      :of="grips.length"
      :ringed="ghosts.length > 0"
      @show="(i) => (chosen = i)"
    />
    <FingerMenu
      v-if="asking"
      :frame="frame"
      :place="asking"
      @choose="choose"
      @close="asking = undefined"
    />
  </div>
</template>

<style scoped>
.neck {
  position: relative;
  min-width: 0;
}
svg {
  display: block;
  font-family: var(--type);
  max-width: 100%;
}
.surface {
  fill: transparent;
  cursor: crosshair;
}
.arc {
  fill: none;
  stroke: var(--wood-ink);
  stroke-width: 1.8;
  pointer-events: none;
}
.place {
  pointer-events: none;
}
.place.askable {
  pointer-events: auto;
  cursor: pointer;
}
.place circle,
.place rect {
  fill: #f7f4ec;
  stroke: #23262b;
  stroke-width: 1;
}
.place text {
  text-anchor: middle;
  font-weight: 700;
  fill: #23262b;
}
.ghost {
  fill: none;
  stroke: var(--wood-ink);
  stroke-width: 1.5;
  opacity: 0.55;
  pointer-events: none;
}
.place.marked circle,
.place.marked rect {
  stroke: #f7f4ec;
  stroke-width: 2;
  stroke-dasharray: 3 2;
  fill: #cfc9bb;
}
.place.now circle,
.place.now rect {
  stroke: #f7f4ec;
  stroke-width: 5;
  fill: #23262b;
}
.place.now text {
  fill: #f7f4ec;
}
.cursor {
  fill: none;
  stroke: var(--wood-ink);
  stroke-width: 2.5;
}
</style>
