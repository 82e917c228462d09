<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, nextTick, ref } from 'vue'

import type { Chart, Damping, Neck } from '../api/client'
import {
  arcsOf,
  doubleInlays,
  fretWindow,
  handBox,
  inlays,
  NeckScale,
  placesOf,
  type Place,
} from '../draw/neck'
import { noteName } from '../draw/words'
import { naming } from '../preferences'

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

const left = 62
const gap = computed(() => props.gap ?? 31)
const top = 24
const strings = computed(() => props.chart.tuning.length)
const bottom = computed(() => top + gap.value * (strings.value - 1))
const window = computed(() =>
  fretWindow(props.neck, props.chart.notes, !props.cut && width.value >= 900),
)
const scale = computed(
  () => new NeckScale(props.neck, window.value[0], window.value[1], left, width.value - left - 8),
)
const wires = computed(() => {
  const [from, to] = window.value
  return Array.from({ length: to - from + 1 }, (_, i) => from + i)
})
const frets = computed(() => wires.value.slice(1))
const places = computed(() => placesOf(props.chart.notes))
const arcs = computed(() => arcsOf(props.chart.notes))
const current = computed(() => (props.now === undefined ? undefined : props.chart.notes[props.now]))
const markedPlaces = computed(
  () => new Set((props.marked ?? []).map((i) => placeKey(props.chart.notes[i]))),
)
const hand = computed(() => (props.edit === 'hand' ? handBox(props.chart.notes) : undefined))

function placeKey(p: { string: number; fret: number } | undefined): string {
  return p ? `${p.string}/${p.fret}` : ''
}
function y(string: number): number {
  return top + (string - 1) * gap.value
}
/** From left to right, or mirrored for the left-handed. */
function x(at: number): number {
  return props.neck.leftHanded ? width.value - at : at
}
function wire(fret: number): number {
  return x(scale.value.wire(fret))
}
function finger(fret: number): number {
  return x(scale.value.finger(fret))
}
function middle(fret: number): number {
  return (wire(fret) + wire(fret - 1)) / 2
}
function span(from: number, to: number): { x: number; width: number } {
  return { x: Math.min(wire(from), wire(to)), width: Math.abs(wire(to) - wire(from)) }
}
/** A slur, above the string for a hammer-on and below it for a pull-off. */
function arcPath(string: number, from: number, to: number): string {
  const a = finger(from)
  const b = finger(to)
  const side = to > from ? -1 : 1
  const edge = y(string) + side * 9
  return `M${a} ${edge} Q${(a + b) / 2} ${edge + side * 9} ${b} ${edge}`
}
const label = computed(() => {
  const p = places.value
  return (
    `Neck with ${p.length} places: ` +
    p.map((q) => `string ${q.string} fret ${q.fret} finger ${q.finger}`).join(', ')
  )
})

/** The place under the mouse. */
function under(event: MouseEvent): { string: number; fret: number } {
  const area = (event.currentTarget as SVGElement).ownerSVGElement ?? event.currentTarget
  const { left: edge, top: head } = (area as SVGElement).getBoundingClientRect()
  const at = event.clientX - edge
  const string = Math.round((event.clientY - head - top) / gap.value) + 1
  return {
    string: Math.min(strings.value, Math.max(1, string)),
    fret: scale.value.fretAt(props.neck.leftHanded ? width.value - at : at),
  }
}

// The hand is dragged along the neck and across the strings.
const dragging = ref<{ string: number; fret: number }>()
function grab(event: PointerEvent) {
  if (props.edit !== 'hand') return
  dragging.value = under(event)
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}
function drag(event: PointerEvent) {
  if (!dragging.value) return
  const at = under(event)
  const by = at.fret - dragging.value.fret
  const thicker = at.string - dragging.value.string
  if (by === 0 && thicker === 0) return
  dragging.value = at
  emit('move', by, thicker)
}
function handKey(event: KeyboardEvent) {
  const along = props.neck.leftHanded ? -1 : 1
  const step: [number, number] | undefined = (
    {
      ArrowRight: [along, 0],
      ArrowLeft: [-along, 0],
      ArrowUp: [0, -1],
      ArrowDown: [0, 1],
    } as Record<string, [number, number]>
  )[event.key]
  if (!step) return
  event.preventDefault()
  emit('move', ...step)
}

// A place is pressed to set its finger.
const asking = ref<Place>()
const menu = ref<HTMLElement>()
async function ask(place: Place) {
  if (props.edit !== 'hand' || place.fret === 0) return
  asking.value = place
  await nextTick()
  menu.value?.querySelector('button')?.focus()
}
function choose(f: number) {
  if (asking.value) emit('finger', asking.value, f)
  asking.value = undefined
}
function addAt(event: MouseEvent) {
  if (props.edit !== 'notes') return
  const { string, fret } = under(event)
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
      :width="width * zoom"
      :height="(bottom + 46) * zoom"
      :viewBox="`0 0 ${width} ${bottom + 46}`"
      :role="{ notes: 'application', hand: 'group', none: 'img' }[edit ?? 'none']"
      :aria-label="
        edit === 'notes' ? 'Neck: arrows move the cursor, enter adds a note there' : label
      "
      :tabindex="edit === 'notes' ? 0 : undefined"
      @keydown="cursorKey"
      @focus="cursor ??= { string: 3, fret: 5 }"
      @blur="cursor = undefined"
    >
      <rect
        class="board"
        :x="span(window[0], window[1]).x"
        :y="top - 18"
        :width="span(window[0], window[1]).width"
        :height="bottom - top + 36"
      />
      <rect
        v-if="neck.topFret < window[1]"
        class="beyond"
        :x="span(neck.topFret, window[1]).x"
        :y="top - 18"
        :width="span(neck.topFret, window[1]).width"
        :height="bottom - top + 36"
      />
      <template v-for="fret in frets" :key="fret">
        <g v-if="doubleInlays.includes(fret + neck.capo)" class="inlay">
          <circle :cx="middle(fret)" :cy="y(2) + gap / 2" r="5" />
          <circle :cx="middle(fret)" :cy="bottom - gap * 1.5" r="5" />
        </g>
        <circle
          v-else-if="inlays.includes(fret + neck.capo)"
          class="inlay"
          :cx="middle(fret)"
          :cy="(top + bottom) / 2"
          r="5"
        />
      </template>
      <line
        v-for="w in wires"
        :key="w"
        :class="['wire', { nut: w === 0 }]"
        :x1="wire(w)"
        :x2="wire(w)"
        :y1="top - 18"
        :y2="bottom + 18"
      />
      <g v-for="s in strings" :key="s">
        <line
          :class="['string', { sounds: current?.string === s }]"
          :x1="wire(window[0])"
          :x2="wire(window[1])"
          :y1="y(s)"
          :y2="y(s)"
          :stroke-width="0.9 + s * 0.32"
        />
        <text class="name" :x="x(neck.leftHanded ? 14 : 4)" :y="y(s) + 5">{{ s }}</text>
        <text class="open" :x="x(neck.leftHanded ? 43 : 22)" :y="y(s) + 5">
          {{ noteName(chart.tuning[s - 1] ?? 0, naming) }}
        </text>
        <path
          v-if="damping && (damping.thicker.includes(s) || damping.thinner.includes(s))"
          class="damped"
          :d="`M${x(left - 9) - 4} ${y(s) - 4}l8 8m0 -8l-8 8`"
        />
      </g>
      <rect
        v-if="edit === 'notes'"
        class="surface"
        :x="0"
        :y="top - 18"
        :width="width"
        :height="bottom - top + 36"
        @click="addAt"
      />
      <rect
        v-if="hand"
        :class="['hand', { dragging }]"
        tabindex="0"
        role="slider"
        aria-label="The hand: arrows move it along the neck and across the strings"
        :aria-valuenow="hand.low"
        :aria-valuetext="`from fret ${hand.low}`"
        :x="span(hand.low - 1, hand.high).x + 2"
        :y="y(hand.thin) - 14"
        :width="Math.max(10, span(hand.low - 1, hand.high).width - 4)"
        :height="y(hand.thick) - y(hand.thin) + 28"
        rx="10"
        @pointerdown="grab"
        @pointermove="drag"
        @pointerup="dragging = undefined"
        @pointercancel="dragging = undefined"
        @keydown="handKey"
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
      >
        <rect
          v-if="p.hand === 'tap'"
          :x="finger(p.fret) - 10"
          :y="y(p.string) - 10"
          width="20"
          height="20"
          rx="3"
        />
        <circle v-else :cx="finger(p.fret)" :cy="y(p.string)" r="10" />
        <text :x="finger(p.fret)" :y="y(p.string) + 5">{{ p.finger }}</text>
      </g>
      <circle
        v-if="cursor"
        class="cursor"
        :cx="finger(cursor.fret)"
        :cy="y(cursor.string)"
        r="12"
      />
      <text v-for="fret in frets" :key="fret" class="fret" :x="middle(fret)" :y="bottom + 36">
        {{ fret }}
      </text>
    </svg>
    <div
      v-if="asking"
      ref="menu"
      class="menu"
      role="menu"
      :aria-label="`Finger for string ${asking.string} fret ${asking.fret}`"
      :style="{
        left: `${Math.min(width - 250, Math.max(0, finger(asking.fret) - 110))}px`,
        top: `${y(asking.string) + 16}px`,
      }"
      @keydown.esc="asking = undefined"
      @focusout="
        (e: FocusEvent) => {
          if (!menu?.contains(e.relatedTarget as Node)) asking = undefined
        }
      "
    >
      <button
        v-for="f in 4"
        :key="f"
        type="button"
        role="menuitem"
        class="figures"
        @click="choose(f)"
      >
        {{ f }}
      </button>
      <button type="button" role="menuitem" @click="choose(0)">proposed</button>
    </div>
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
.board {
  fill: var(--wood);
}
.beyond {
  fill: #000;
  opacity: 0.45;
}
.inlay {
  fill: var(--wood-ink);
  opacity: 0.22;
}
.wire {
  stroke: var(--wood-line);
  stroke-width: 2;
}
.wire.nut {
  stroke: var(--wood-ink);
  stroke-width: 7;
}
.string {
  stroke: var(--wood-line);
}
.string.sounds {
  stroke: var(--wood-ink);
}
.name {
  font-weight: 700;
  font-size: 15px;
  fill: var(--ink);
}
.open {
  font-size: 13px;
  fill: var(--ink-2);
}
.damped {
  stroke: var(--ink);
  stroke-width: 1.8;
}
.surface {
  fill: transparent;
  cursor: crosshair;
}
.hand {
  fill: var(--wood-ink);
  fill-opacity: 0.1;
  stroke: var(--wood-ink);
  stroke-opacity: 0.5;
  stroke-width: 1.5;
  stroke-dasharray: 5 4;
  cursor: grab;
  touch-action: none;
}
.hand:hover,
.hand:focus-visible,
.hand.dragging {
  fill-opacity: 0.2;
  stroke-opacity: 1;
}
.hand.dragging {
  cursor: grabbing;
}
.fret {
  font-size: 13px;
  text-anchor: middle;
  fill: var(--ink-2);
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
  font-size: 14px;
  fill: #23262b;
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
.menu {
  position: absolute;
  z-index: 5;
  display: flex;
  gap: 3px;
  padding: 5px;
  background: var(--sheet);
  border: 1px solid var(--ink);
  border-radius: var(--round);
  box-shadow: 0 3px 12px rgb(0 0 0 / 25%);
}
.menu button {
  min-width: 34px;
  border: 1px solid var(--line-2);
  border-radius: 4px;
  background: var(--sheet);
  color: var(--ink);
  font-size: 15px;
  font-weight: 600;
  padding: 4px 7px;
  cursor: pointer;
}
.menu button:hover,
.menu button:focus-visible {
  background: var(--ink);
  color: var(--sheet);
}
</style>
