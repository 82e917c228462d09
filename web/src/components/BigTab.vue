<script setup lang="ts">
import { useElementSize, useWindowSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { Chart } from '../api/client'
import { attackMarks, tabMargin, tabRows } from '../draw/tab'
import { rowsShown } from '../draw/turning'
import { count } from '../draw/words'

/**
 * Tablature to be read from a metre and a half: a few beats in a row, the row being played
 * and the next. The notes stay where they are; the present one is shown on them.
 */
const props = defineProps<{
  chart: Chart
  /** The chart note that sounds now, and its pass, from 0. */
  now?: number
  pass?: number
}>()

const box = ref<HTMLElement>()
const { width, height } = useElementSize(box)
const { width: screen } = useWindowSize()

/** In the units of the drawing: a digit's type, from string to string, and around them. */
const type = 15
const gap = 10
const top = 20
const below = 17
const strings = computed(() => props.chart.tuning.length)
const bottom = computed(() => top + gap * (strings.value - 1))
const rowHeight = computed(() => bottom.value + below)

/**
 * Digits are 9 mm high at the least on a screen as wide as a 14-inch one, 310 mm: a digit
 * is 0.72 of its type.
 */
const leastType = computed(() => Math.max(44, (screen.value * 9) / 310 / 0.72))
const room: [number, number] = [17.5, 60] // for two digits, and for one alone

const laidAt = (zoom: number) => tabRows(props.chart, width.value / zoom, room)
/** As large as still shows all rows, or else as large as they must be. */
const laid = computed(() => {
  const least = leastType.value / type
  for (let zoom = 1.7 * least; zoom > least; zoom *= 0.94) {
    const rows = laidAt(zoom)
    const fits = rows.every((r) => r.width * zoom <= width.value + 1)
    if (fits && rows.length * rowHeight.value * zoom <= height.value) return { rows, zoom }
  }
  return { rows: laidAt(least), zoom: least }
})
const rows = computed(() => laid.value.rows)
const zoom = computed(() => {
  const widest = Math.max(...rows.value.map((r) => r.width))
  return Math.min(laid.value.zoom, width.value / widest || 1)
})
const places = computed(() =>
  Math.max(1, Math.floor(height.value / (rowHeight.value * zoom.value))),
)
const playing = computed(() =>
  props.now === undefined
    ? undefined
    : rows.value.findIndex((r) => r.notes.some((n) => n.index === props.now)),
)
const shown = computed(() => {
  const passes = props.chart.passes ?? 1
  const at = (props.pass ?? 0) * rows.value.length + (playing.value ?? 0)
  return rowsShown(rows.value.length, places.value, at, Math.max(passes, (props.pass ?? 0) + 1))
})

const y = (string: number) => top + (string - 1) * gap
function slur(from: number, to: number, string: number): string {
  const edge = y(string) - 5
  return `M${from + 4} ${edge} Q${(from + to) / 2} ${edge - 5} ${to - 4} ${edge}`
}
function slide(from: number, to: number, string: number): string {
  return `M${from + 9} ${y(string) + 3} L${to - 9} ${y(string) - 3}`
}
const beatInBar = (beat: number) => ((beat - 1) % (props.chart.beatsPerBar ?? 4)) + 1
</script>

<template>
  <div
    ref="box"
    class="big"
    role="img"
    :aria-label="`Tablature, ${count(chart.notes.length, 'note')}`"
  >
    <template v-if="width > 0">
      <div v-for="(at, place) in shown" :key="place" class="place">
        <svg
          v-if="at !== undefined && rows[at]"
          :class="{ played: at === playing }"
          :width="rows[at].width * zoom"
          :height="rowHeight * zoom"
          :viewBox="`0 0 ${rows[at].width} ${rowHeight}`"
        >
          <line
            v-for="s in strings"
            :key="s"
            class="string"
            :x1="tabMargin - 8"
            :x2="rows[at].width - 8"
            :y1="y(s)"
            :y2="y(s)"
          />
          <g v-for="b in rows[at].beats" :key="b.beat">
            <line :class="['beat', { bar: b.bar }]" :x1="b.x" :x2="b.x" :y1="top" :y2="bottom" />
            <text class="beat-number" :x="b.x" y="9">{{ beatInBar(b.beat) }}</text>
          </g>
          <g v-for="n in rows[at].notes" :key="n.index" :class="{ now: n.index === now }">
            <path v-if="n.stroke === 'down'" class="stroke" :d="`M${n.x - 3.5} 10v-6h7v6`" />
            <path v-else-if="n.stroke === 'up'" class="stroke" :d="`M${n.x - 3} 3l3 7l3 -7`" />
            <text v-else class="attack" :x="n.x" y="10">
              {{ n.stroke ?? attackMarks[n.attack] }}
            </text>
            <path
              v-if="n.slurFrom !== undefined"
              class="slur"
              :d="(n.attack === 'slide' ? slide : slur)(n.slurFrom, n.x, n.string)"
            />
            <rect
              class="behind"
              :x="n.x - 8.5"
              :y="y(n.string) - 6.5"
              width="17"
              height="13"
              rx="2.5"
            />
            <text class="fret" :x="n.x" :y="y(n.string) + 5.4">{{ n.fret }}</text>
            <text class="finger" :x="n.x" :y="bottom + 14">
              {{ n.hand === 'tap' ? 't' : n.finger }}
            </text>
          </g>
        </svg>
      </div>
    </template>
  </div>
</template>

<style scoped>
.big {
  min-width: 0;
  min-height: 0;
  height: 100%;
  overflow: hidden;
  display: flex;
  flex-direction: column;
  justify-content: space-evenly;
}
svg {
  display: block;
  font-family: var(--type);
  opacity: 0.72;
}
svg.played {
  opacity: 1;
}
.string {
  stroke: var(--line-2);
  stroke-width: 0.8;
}
.beat {
  stroke: var(--line-2);
}
.beat.bar {
  stroke: var(--ink-2);
  stroke-width: 1.6;
}
.beat-number {
  font-size: 8px;
  text-anchor: middle;
  fill: var(--ink-2);
}
.stroke,
.slur {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
}
.attack {
  font-size: 9px;
  font-weight: 700;
  text-anchor: middle;
  fill: var(--ink);
}
.behind {
  fill: var(--ground);
}
.fret {
  font-size: 15px;
  font-weight: 700;
  text-anchor: middle;
  fill: var(--ink);
}
.finger {
  font-size: 10px;
  text-anchor: middle;
  fill: var(--ink-2);
}
.now .behind {
  fill: var(--ink);
}
.now .fret {
  fill: var(--ground);
}
.now .finger {
  fill: var(--ink);
  font-weight: 700;
}
</style>
