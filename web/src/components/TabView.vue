<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

import type { Chart, PlacedChord } from '../api/client'
import { attackMarks, partsStarting, tabMargin, tabRows, type TabRow } from '../draw/tab'
import { count } from '../draw/words'

const props = defineProps<{
  chart: Chart
  /** The chart note that sounds now. */
  now?: number
  /** How much larger than on paper: at the least, and at the most where one row has room. */
  zoom?: [number, number]
  /** Notes that a remark is about. */
  marked?: number[]
  chords?: PlacedChord[]
  /** Strings close together, without beats and fingers: several on one page of paper. */
  compact?: boolean
}>()
const emit = defineEmits<{ look: [note: number | undefined] }>()

const box = ref<HTMLElement>()
const { width: boxWidth } = useElementSize(box)
const least = computed(() => props.zoom?.[0] ?? 1)
const width = computed(() => Math.max(280, boxWidth.value))
const rows = computed(() => tabRows(props.chart, width.value / least.value))
const zoom = computed(() => {
  const [only, second] = rows.value
  if (!only || second) return least.value
  return Math.max(least.value, Math.min(props.zoom?.[1] ?? 1, width.value / only.width))
})

const line = computed(() => (props.compact ? 12 : 15))
const top = computed(() => (props.compact ? 34 : 50))
const strings = computed(() => props.chart.tuning.length)
const bottom = computed(() => top.value + line.value * (strings.value - 1))
/** Room above for what a part is called. */
const head = computed(() => (props.chart.parts ? 18 : 0))
const height = computed(() => bottom.value + (props.compact ? 8 : props.chords?.length ? 46 : 32))

function y(string: number): number {
  return top.value + (string - 1) * line.value
}
function slur(from: number, to: number, string: number): string {
  const edge = y(string) - 8
  return `M${from + 3} ${edge} Q${(from + to) / 2} ${edge - 8} ${to - 3} ${edge}`
}
function slide(from: number, to: number, string: number): string {
  const rising = 4
  return `M${from + 9} ${y(string) + rising} L${to - 9} ${y(string) - rising}`
}
const chordAt = computed(() => new Map((props.chords ?? []).map((c) => [c.from, c.chord.name])))
const partStarts = (row: TabRow) => partsStarting(props.chart, row)
const marks = computed(() => new Set(props.marked))
function contains(row: TabRow, index: number | undefined): boolean {
  return index !== undefined && row.notes.some((n) => n.index === index)
}

// The row that sounds stays in view.
const rowElements = ref<SVGSVGElement[]>([])
watch(
  () => rows.value.findIndex((r) => contains(r, props.now)),
  (at) => rowElements.value[at]?.scrollIntoView({ block: 'nearest', behavior: 'smooth' }),
)
</script>

<template>
  <div
    ref="box"
    class="tab"
    role="img"
    :aria-label="`Tablature, ${count(chart.notes.length, 'note')}`"
  >
    <svg
      v-for="(row, r) in rows"
      :key="r"
      ref="rowElements"
      :width="row.width * zoom"
      :height="(height + head) * zoom"
      :viewBox="`0 ${-head} ${row.width} ${height + head}`"
    >
      <line
        v-for="s in strings"
        :key="s"
        class="string"
        :x1="tabMargin - 8"
        :x2="row.width - 8"
        :y1="y(s)"
        :y2="y(s)"
      />
      <template v-if="r === 0">
        <text v-for="s in strings" :key="s" class="string-name" x="4" :y="y(s) + 4">{{ s }}</text>
      </template>
      <g v-for="b in row.beats" :key="b.beat">
        <line :class="['beat', { bar: b.bar }]" :x1="b.x" :x2="b.x" :y1="top" :y2="bottom" />
        <text v-if="!compact" class="beat-number" :x="b.x + 3" y="12">{{ b.beat }}</text>
      </g>
      <text v-for="p in partStarts(row)" :key="p.x" class="part" :x="p.x" y="-5">
        {{ p.title }}
      </text>
      <g
        v-for="n in row.notes"
        :key="n.index"
        :class="{ now: n.index === now, marked: marks.has(n.index) }"
        @mouseenter="emit('look', n.index)"
        @mouseleave="emit('look', undefined)"
      >
        <rect class="column" :x="n.x - 12" y="0" width="24" :height="height" />
        <text v-if="chordAt.has(n.index)" class="chord" :x="n.x - 8" :y="bottom + 38">
          {{ chordAt.get(n.index) }}
        </text>
        <path v-if="n.stroke === 'down'" class="stroke" :d="`M${n.x - 5} ${top - 21}v-7h10v7`" />
        <path
          v-else-if="n.stroke === 'up'"
          class="stroke"
          :d="`M${n.x - 4} ${top - 29}l4 8l4 -8`"
        />
        <text v-else class="attack" :x="n.x" :y="top - 21">
          {{ n.stroke ?? attackMarks[n.attack] }}
        </text>
        <path
          v-if="n.slurFrom !== undefined"
          class="slur"
          :d="(n.attack === 'slide' ? slide : slur)(n.slurFrom, n.x, n.string)"
        />
        <rect class="behind" :x="n.x - 9" :y="y(n.string) - 8" width="18" height="16" rx="3" />
        <text class="fret" :x="n.x" :y="y(n.string) + 5">{{ n.fret }}</text>
        <text v-if="!compact" :class="['finger', { own: n.own }]" :x="n.x" :y="bottom + 22">
          {{ n.hand === 'tap' ? 't' : n.finger }}
        </text>
        <path v-if="n.keep && !compact" class="keep" :d="`M${n.x + 6} ${bottom + 17}h14`" />
      </g>
    </svg>
  </div>
</template>

<style scoped>
.tab {
  min-width: 0;
  overflow: hidden;
  display: grid;
  gap: var(--s2);
}
svg {
  display: block;
  font-family: var(--type);
  max-width: 100%;
}
.string {
  stroke: var(--line-2);
}
.string-name {
  font-size: 11px;
  fill: var(--ink-2);
}
.beat {
  stroke: var(--ink-3);
}
.beat.bar {
  stroke: var(--ink);
  stroke-width: 2;
}
.column {
  fill: transparent;
}
.marked .column {
  fill: var(--line);
}
.marked .behind {
  fill: var(--line);
}
.chord {
  font-size: 12px;
  font-weight: 600;
  fill: var(--ink);
}
.keep {
  stroke: var(--ink-2);
  stroke-width: 1.5;
}
.part {
  font-size: 13px;
  font-weight: 700;
  fill: var(--ink);
}
.beat-number {
  font-size: 11px;
  fill: var(--ink-2);
}
.stroke,
.slur {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.5;
}
.attack {
  font-size: 12px;
  font-weight: 700;
  text-anchor: middle;
  fill: var(--ink);
}
.behind {
  fill: var(--sheet);
}
.fret {
  font-size: 15px;
  font-weight: 700;
  text-anchor: middle;
  fill: var(--ink);
}
.finger {
  font-size: 13px;
  text-anchor: middle;
  fill: var(--ink-2);
}
/* Set by the instructor, not proposed. */
.finger.own {
  text-decoration: underline;
  font-weight: 700;
  fill: var(--ink);
}
.now .behind {
  fill: var(--ink);
}
.now .fret {
  fill: var(--sheet);
}
.now .finger {
  fill: var(--ink);
  font-weight: 700;
}
</style>
