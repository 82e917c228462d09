<script setup lang="ts">
import { useElementSize, useWindowSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { Chart } from '../api/client'
import type { Marked } from '../audio/ear'
import { attackMarks, partsStarting, tabMargin, tabRows } from '../draw/tab'
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
  /** What has become of notes that were played, by their index over all passes. */
  marks?: Map<number, Marked>
}>()

const box = ref<HTMLElement>()
const { width, height } = useElementSize(box)
const { width: screen } = useWindowSize()

/** In the units of the drawing: a digit's type, from string to string, and around them. */
const type = 15
const gap = 10
const top = 20
const below = 17
/** What is cut off at both ends: on paper there is more room. */
const crop = 14
const strings = computed(() => props.chart.tuning.length)
const bottom = computed(() => top + gap * (strings.value - 1))
/** Room above for what a part is called, unless the next row is not seen for it. */
const head = computed(() => {
  const twoRows = (2 * (bottom.value + below) * leastType.value) / type
  const none = height.value >= twoRows && height.value < twoRows * 1.12
  return props.chart.parts && !none ? 10 : 0
})
const rowHeight = computed(() => bottom.value + below + head.value)

/**
 * Digits are 9 mm high at the least on a screen as wide as a 14-inch one, 310 mm: a digit
 * is 0.72 of its type.
 */
const leastType = computed(() => Math.max(44, (screen.value * 9) / 310 / 0.72))
const room: [number, number] = [17.5, 60] // for two digits, and for one alone

const laidAt = (zoom: number) => tabRows(props.chart, width.value / zoom + 2 * crop, room)
/** As large as still shows all rows, or else as large as they must be. */
const laid = computed(() => {
  const least = leastType.value / type
  for (let zoom = 1.7 * least; zoom > least; zoom *= 0.94) {
    const rows = laidAt(zoom)
    const fits = rows.every((r) => (r.width - 2 * crop) * zoom <= width.value + 1)
    if (fits && rows.length * rowHeight.value * zoom <= height.value) return { rows, zoom }
  }
  return { rows: laidAt(least), zoom: least }
})
const rows = computed(() => laid.value.rows)
const zoom = computed(() => {
  const widest = Math.max(...rows.value.map((r) => r.width)) - 2 * crop
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
/** How much of the row that is played is over. */
const share = computed(() => {
  const notes = rows.value[playing.value ?? 0]?.notes ?? []
  const at = notes.findIndex((n) => n.index === props.now)
  return at < 0 ? 1 : at / notes.length
})
/** The rows shown, each with its pass. */
const shown = computed(() => {
  const pass = props.pass ?? 0
  const count = rows.value.length
  const at = pass * count + (playing.value ?? 0)
  const passes = Math.max(props.chart.passes ?? 1, pass + 1)
  return rowsShown(count, places.value, at, share.value, passes).map((q) => {
    const row = q === undefined ? undefined : rows.value[q % count]
    return (
      row && { row, pass: Math.floor(q! / count), playing: q === at && props.now !== undefined }
    )
  })
})
const markOf = (pass: number, note: number): Marked | undefined =>
  props.marks?.get(pass * props.chart.notes.length + note)

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
      <div v-for="(r, place) in shown" :key="place" class="place">
        <svg
          v-if="r"
          :class="{ played: r.playing }"
          :width="(r.row.width - 2 * crop) * zoom"
          :height="rowHeight * zoom"
          :viewBox="`${crop} ${-head} ${r.row.width - 2 * crop} ${rowHeight}`"
        >
          <line
            v-for="s in strings"
            :key="s"
            class="string"
            :x1="tabMargin - 8"
            :x2="r.row.width - 8"
            :y1="y(s)"
            :y2="y(s)"
          />
          <text
            v-for="p in head ? partsStarting(chart, r.row) : []"
            :key="p.x"
            class="part"
            :x="p.x + 4"
            y="-2"
          >
            {{ p.title }}
          </text>
          <g v-for="b in r.row.beats" :key="b.beat">
            <line
              :class="['beat', { bar: b.bar }]"
              :x1="b.x - 1.5"
              :x2="b.x - 1.5"
              :y1="top"
              :y2="bottom"
            />
            <text class="beat-number" :x="b.x" y="9">{{ beatInBar(b.beat) }}</text>
          </g>
          <g
            v-for="n in r.row.notes"
            :key="n.index"
            :class="[markOf(r.pass, n.index), { now: r.playing && n.index === now }]"
            :data-note="r.pass * chart.notes.length + n.index"
          >
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
            <path
              v-if="markOf(r.pass, n.index) === 'late'"
              class="mark"
              :d="`M${n.x + 9} ${y(n.string) - 5}l5 5l-5 5z`"
            />
            <path
              v-else-if="markOf(r.pass, n.index) === 'early'"
              class="mark"
              :d="`M${n.x - 9} ${y(n.string) - 5}l-5 5l5 5z`"
            />
            <path
              v-else-if="markOf(r.pass, n.index) === 'wrong'"
              class="struck"
              :d="`M${n.x - 9} ${y(n.string) + 7}L${n.x + 9} ${y(n.string) - 7}`"
            />
            <rect
              v-else-if="markOf(r.pass, n.index) === 'missed'"
              class="missing"
              :x="n.x - 9"
              :y="y(n.string) - 7"
              width="18"
              height="14"
              rx="2.5"
            />
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
.part {
  font-size: 8.5px;
  font-weight: 700;
  fill: var(--ink);
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
.mark {
  fill: var(--timing);
}
.struck {
  stroke: var(--ink);
  stroke-width: 2;
}
.missing {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
  stroke-dasharray: 3 2;
}
.missed .fret {
  fill: var(--ink-3);
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
