<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { Chart, Neck } from '../api/client'
import { arcsOf, doubleInlays, fretWindow, inlays, NeckScale, placesOf } from '../draw/neck'
import { noteName } from '../draw/words'

const props = defineProps<{
  neck: Neck
  chart: Chart
  /** The chart note that sounds now. */
  now?: number
}>()

const box = ref<HTMLElement>()
const { width: boxWidth } = useElementSize(box)
const width = computed(() => Math.max(320, boxWidth.value))

const left = 62
const gap = 31
const top = 24
const strings = computed(() => props.chart.tuning.length)
const bottom = computed(() => top + gap * (strings.value - 1))
const window = computed(() => fretWindow(props.neck, props.chart.notes, width.value >= 900))
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

function y(string: number): number {
  return top + (string - 1) * gap
}
function middle(fret: number): number {
  return (scale.value.wire(fret) + scale.value.wire(fret - 1)) / 2
}
/** A slur, above the string for a hammer-on and below it for a pull-off. */
function arcPath(string: number, from: number, to: number): string {
  const a = scale.value.finger(from)
  const b = scale.value.finger(to)
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
</script>

<template>
  <div ref="box" class="neck">
    <svg :width="width" :height="bottom + 46" role="img" :aria-label="label">
      <rect
        class="board"
        :x="scale.wire(window[0])"
        :y="top - 18"
        :width="scale.wire(window[1]) - scale.wire(window[0])"
        :height="bottom - top + 36"
      />
      <template v-for="fret in frets" :key="fret">
        <g v-if="doubleInlays.includes(fret)" class="inlay">
          <circle :cx="middle(fret)" :cy="y(2) + gap / 2" r="5" />
          <circle :cx="middle(fret)" :cy="bottom - gap * 1.5" r="5" />
        </g>
        <circle
          v-else-if="inlays.includes(fret)"
          class="inlay"
          :cx="middle(fret)"
          :cy="(top + bottom) / 2"
          r="5"
        />
      </template>
      <line
        v-for="wire in wires"
        :key="wire"
        :class="['wire', { nut: wire === 0 }]"
        :x1="scale.wire(wire)"
        :x2="scale.wire(wire)"
        :y1="top - 18"
        :y2="bottom + 18"
      />
      <g v-for="s in strings" :key="s">
        <line
          class="string"
          :x1="scale.wire(window[0])"
          :x2="scale.wire(window[1])"
          :y1="y(s)"
          :y2="y(s)"
          :stroke-width="0.9 + s * 0.32"
        />
        <text class="name" x="4" :y="y(s) + 5">{{ s }}</text>
        <text class="open" x="22" :y="y(s) + 5">{{ noteName(chart.tuning[s - 1] ?? 0) }}</text>
      </g>
      <path
        v-for="a in arcs"
        :key="`${a.string}/${a.from}/${a.to}`"
        class="arc"
        :d="arcPath(a.string, a.from, a.to)"
      />
      <g
        v-for="p in places"
        :key="`${p.string}/${p.fret}`"
        :class="['place', { now: current?.string === p.string && current?.fret === p.fret }]"
      >
        <circle :cx="scale.finger(p.fret)" :cy="y(p.string)" r="10" />
        <text :x="scale.finger(p.fret)" :y="y(p.string) + 5">{{ p.finger }}</text>
      </g>
      <text v-for="fret in frets" :key="fret" class="fret" :x="middle(fret)" :y="bottom + 36">
        {{ fret }}
      </text>
    </svg>
  </div>
</template>

<style scoped>
.neck {
  min-width: 0;
  overflow: hidden;
}
svg {
  display: block;
  font-family: var(--type);
}
.board {
  fill: var(--wood);
}
.inlay {
  fill: #f4f0e6;
  opacity: 0.22;
}
.wire {
  stroke: #b9b3a5;
  stroke-width: 2;
}
.wire.nut {
  stroke: #f4f0e6;
  stroke-width: 7;
}
.string {
  stroke: #d9d4c6;
  opacity: 0.75;
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
.fret {
  font-size: 13px;
  text-anchor: middle;
  fill: var(--ink-2);
}
.arc {
  fill: none;
  stroke: #f4f0e6;
  stroke-width: 1.8;
}
.place circle {
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
.place.now circle {
  stroke: #f7f4ec;
  stroke-width: 5;
  fill: #23262b;
}
.place.now text {
  fill: #f7f4ec;
}
</style>
