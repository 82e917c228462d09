<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { Analysis, Chart, HeardNote } from '../api/client'
import { clampTo, stripMargin, strips, type Mark } from '../draw/timeline'
import { levelLimit, timingLimit } from '../draw/noterows'
import { extraWords, noteWords } from '../draw/notewords'
import { signed } from '../draw/words'
import { useRoving } from './roving'

const props = defineProps<{
  chart: Chart
  analysis: Analysis
  /** The moment of the recording that is heard now, s. */
  at?: number
  /** Index of the note that is looked at. */
  chosen?: number
  /** Indices of notes with comments. */
  pinned?: Set<number>
}>()
const emit = defineEmits<{ choose: [index: number]; hear: [from: number] }>()

const box = ref<HTMLElement>()
const { width } = useElementSize(box)
const all = computed(() =>
  strips(props.chart, props.analysis, Math.max(320, width.value), props.pinned),
)
const passes = computed(() => new Set(all.value.map((s) => s.pass)).size)

const laneTiming = { middle: 64, half: 34 }
const laneLevel = { middle: 147, half: 26 }
const laneSound = { y: 187, height: 9 }
const stringY = 221
const fretY = 240
const fingerY = 259
/** What happened has a lane of its own above the others, where anything did. */
const above = computed(() => (all.value.some((s) => s.events.length > 0) ? 22 : 0))
const height = computed(() => 267 + above.value)

const latest = computed(() => timingLimit(props.analysis))
const loudest = computed(() => levelLimit(props.analysis))
const audible = computed(() =>
  clampTo(props.analysis.timing.audibleMs, latest.value, laneTiming.half),
)
const even = computed(() => clampTo(props.analysis.level.audibleDb, loudest.value, laneLevel.half))

function off(h: HeardNote): number {
  return clampTo(h.deviationMs ?? 0, latest.value, laneTiming.half)
}
function loud(h: HeardNote): number {
  return clampTo(h.relativeLevelDb ?? 0, loudest.value, laneLevel.half)
}
function sounds(m: Mark): boolean {
  return (
    props.at !== undefined &&
    m.heard.t !== undefined &&
    props.at >= m.heard.t - 0.01 &&
    props.at < (m.heard.end ?? m.heard.t + 0.1)
  )
}
const { tabindexOf, onFocus, onKeydown } = useRoving(() => {
  const first = all.value[0]?.marks[0]
  return first && `note ${first.heard.index}`
})
function words(m: Mark): string {
  return noteWords(m.chart, m.heard)
}
</script>

<template>
  <div ref="box" class="timeline" @focusin="onFocus" @keydown="onKeydown">
    <figure v-for="(strip, i) in all" :key="i">
      <figcaption v-if="strip.first && passes > 1">Pass {{ strip.pass + 1 }}</figcaption>
      <svg
        :width="Math.max(strip.width, stripMargin) + 4"
        :height="height"
        role="group"
        :aria-label="`Pass ${strip.pass + 1}`"
      >
        <g :transform="`translate(0 ${above})`">
          <g class="axis">
            <text x="0" :y="laneTiming.middle - laneTiming.half + 8">early</text>
            <text x="0" :y="laneTiming.middle + 4">on time</text>
            <text x="0" :y="laneTiming.middle + laneTiming.half">late</text>
            <text x="0" :y="laneLevel.middle - laneLevel.half + 8">loud</text>
            <text x="0" :y="laneLevel.middle + laneLevel.half">soft</text>
            <text x="0" :y="laneSound.y + 9">sounds</text>
            <text x="0" :y="stringY">string</text>
            <text x="0" :y="fretY">fret</text>
            <text x="0" :y="fingerY">finger</text>
          </g>
          <rect
            class="band timing"
            :x="stripMargin"
            :y="laneTiming.middle - audible"
            :width="strip.width - stripMargin"
            :height="2 * audible"
          />
          <rect
            class="band level"
            :x="stripMargin"
            :y="laneLevel.middle - even"
            :width="strip.width - stripMargin"
            :height="2 * even"
          />
          <line
            class="zero"
            :x1="stripMargin"
            :x2="strip.width"
            :y1="laneTiming.middle"
            :y2="laneTiming.middle"
          />
          <line
            class="zero"
            :x1="stripMargin"
            :x2="strip.width"
            :y1="laneLevel.middle"
            :y2="laneLevel.middle"
          />
          <g v-for="b in strip.beats" :key="b.beat">
            <line class="beat" :x1="b.x" :x2="b.x" y1="16" :y2="fingerY" />
            <text class="beat-number" :x="b.x + 3" y="10">{{ b.beat }}</text>
          </g>
          <g
            v-for="m in strip.marks"
            :key="m.heard.index"
            :class="[
              'mark',
              m.heard.status,
              {
                uneven: m.uneven,
                stands: m.stands,
                sounds: sounds(m),
                chosen: m.heard.index === chosen,
              },
            ]"
            role="button"
            :data-roving="`note ${m.heard.index}`"
            :tabindex="tabindexOf(`note ${m.heard.index}`)"
            :aria-label="words(m)"
            @click="emit('choose', m.heard.index)"
          >
            <title>{{ words(m) }}</title>
            <rect
              class="target"
              :x="m.x - (m.next - m.x) / 2"
              y="14"
              :width="m.next - m.x"
              :height="fingerY - 8"
            />
            <template v-if="m.heard.status === 'missed'">
              <circle class="hole" :cx="m.x" :cy="laneTiming.middle" r="7" />
              <path class="hole" :d="`M${m.x - 5} ${laneTiming.middle + 5}l10 -10`" />
            </template>
            <template v-else>
              <line
                class="stem"
                :x1="m.x"
                :x2="m.x"
                :y1="laneTiming.middle"
                :y2="laneTiming.middle + off(m.heard)"
              />
              <path
                v-if="m.heard.status === 'wrong'"
                class="cross"
                :d="`M${m.x - 6} ${laneTiming.middle + off(m.heard) - 6}l12 12m0 -12l-12 12`"
              />
              <circle v-else class="head" :cx="m.x" :cy="laneTiming.middle + off(m.heard)" r="5" />
              <rect
                class="bar"
                :x="m.x - 5"
                width="10"
                :y="laneLevel.middle - Math.max(0, loud(m.heard))"
                :height="Math.max(1.5, Math.abs(loud(m.heard)))"
              />
              <template v-if="m.sounding !== undefined">
                <rect
                  class="sounding"
                  :x="m.x - 5"
                  :y="laneSound.y"
                  :width="m.sounding * (m.next - m.x)"
                  :height="laneSound.height"
                />
                <rect
                  v-if="m.heard.gapMs !== undefined"
                  class="gap"
                  :x="m.x - 5 + m.sounding * (m.next - m.x)"
                  :y="laneSound.y"
                  :width="(1 - m.sounding) * (m.next - m.x)"
                  :height="laneSound.height"
                />
              </template>
              <path
                v-if="m.heard.ringsDb !== undefined"
                class="rings"
                :d="`M${m.x - 8} ${laneSound.y - 5}q4 -7 8 0t8 0t8 0`"
              />
              <path
                v-if="m.heard.bendCents !== undefined"
                class="rings"
                :d="`M${m.x - 4} ${laneSound.y - 3}q10 0 10 -9`"
              />
            </template>
            <circle
              v-if="m.pinned"
              class="pin"
              :cx="m.x + (m.next - m.x) / 2 - 6"
              cy="21"
              r="4.5"
            />
          </g>
          <!-- The same in figures, for the eye: the marks say it in words. -->
          <g
            v-for="m in strip.marks"
            :key="`text ${m.heard.index}`"
            class="figure"
            aria-hidden="true"
          >
            <text
              v-if="m.uneven && Math.abs(m.heard.deviationMs ?? 0) > latest"
              class="beyond"
              :x="m.x"
              :y="laneTiming.middle + off(m.heard) + (off(m.heard) > 0 ? 16 : -9)"
            >
              {{ signed(m.heard.deviationMs ?? 0) }}
            </text>
            <text class="string" :x="m.x" :y="stringY">{{ m.chart.string }}</text>
            <text class="fret" :x="m.x" :y="fretY">{{ m.chart.fret }}</text>
            <text class="finger" :x="m.x" :y="fingerY">{{ m.chart.finger }}</text>
          </g>
          <g
            v-for="(e, k) in strip.extras"
            :key="k"
            class="extra"
            role="button"
            :data-roving="`extra ${i} ${k}`"
            :tabindex="tabindexOf(`extra ${i} ${k}`)"
            :aria-label="extraWords(e.extra)"
            @click="emit('hear', e.extra.t)"
          >
            <title>{{ extraWords(e.extra) }}</title>
            <path :d="`M${e.x} ${laneTiming.middle - 8}l7 8l-7 8l-7 -8z`" />
          </g>
        </g>
        <g
          v-for="(e, k) in strip.events"
          :key="`event ${k}`"
          class="event"
          data-test="happened"
          :data-of="`${e.event.kind} ${e.event.before}`"
          role="img"
          :aria-label="e.words"
        >
          <title>{{ e.words }}</title>
          <line :x1="e.x" :x2="e.x" y1="18" :y2="above + laneSound.y" />
          <path
            v-if="e.toX !== undefined"
            :d="`M${e.x} 20H${e.toX}m${e.toX < e.x ? 6 : -6} -4l${e.toX < e.x ? -6 : 6} 4l${e.toX < e.x ? 6 : -6} 4`"
          />
          <text
            :x="e.x > strip.width - 70 ? e.x - 4 : e.x + 4"
            y="16"
            :text-anchor="e.x > strip.width - 70 ? 'end' : 'start'"
          >
            {{ e.words }}
          </text>
        </g>
      </svg>
    </figure>
    <p class="legend small">
      <span
        ><svg width="14" height="14"><circle class="even-head" cx="7" cy="7" r="5" /></svg> even to
        the ear</span
      >
      <span
        ><svg width="14" height="14"><circle class="uneven-head" cx="7" cy="7" r="5" /></svg> heard
        as early or late (more than {{ analysis.timing.audibleMs.toFixed(0) }} ms)</span
      >
      <span
        ><svg width="14" height="14">
          <rect class="level-bar" x="3" y="1" width="8" height="12" />
        </svg>
        heard as loud or soft (more than {{ analysis.level.audibleDb }} dB)</span
      >
      <span
        ><svg width="16" height="16">
          <circle class="hole" cx="8" cy="8" r="6" />
          <path class="hole" d="M4 12l8 -8" />
        </svg>
        missed</span
      >
      <span
        ><svg width="22" height="14">
          <rect class="sounding" x="0" y="3" width="12" height="8" />
          <rect class="gap" x="12" y="3" width="10" height="8" />
        </svg>
        silence before the next note</span
      >
      <span
        ><svg width="26" height="14"><path class="rings" d="M1 8q4 -7 8 0t8 0t8 0" /></svg> the
        string before rings on</span
      >
      <span
        ><svg width="16" height="14"><path class="rings" d="M2 12q10 0 10 -9" /></svg> string
        dragged before a pull-off</span
      >
      <span
        ><svg width="14" height="14"><path class="cross" d="M2 2l10 10m0 -10l-10 10" /></svg> wrong
        note</span
      >
      <span
        ><svg width="14" height="14"><path class="diamond" d="M7 1l6 6l-6 6l-6 -6z" /></svg> extra
        note</span
      >
    </p>
  </div>
</template>

<style scoped>
.timeline {
  min-width: 0;
  display: grid;
  gap: var(--s3);
  overflow: hidden;
}
figure {
  margin: 0;
}
figcaption {
  font-weight: 700;
  margin-bottom: var(--s1);
}
svg {
  display: block;
  font-family: var(--type);
}
.axis text {
  font-size: 12px;
  fill: var(--ink-2);
}
.band {
  fill: var(--sheet-2);
}
.zero {
  stroke: var(--line-2);
}
.beat {
  stroke: var(--line);
}
.beat-number {
  font-size: 11px;
  fill: var(--ink-2);
}
.target {
  fill: transparent;
}
.figure {
  pointer-events: none;
}
.mark {
  cursor: pointer;
  outline: none;
}
.mark:hover .target,
.mark:focus-visible .target,
.mark.sounds .target {
  fill: var(--line);
  opacity: 0.6;
}
.mark:focus-visible .target {
  stroke: var(--ink);
  stroke-width: 2;
}
.mark.chosen .target {
  fill: var(--sheet-2);
  stroke: var(--ink);
  stroke-width: 2;
}
.sounding {
  fill: var(--line-2);
}
.gap {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.5;
  stroke-dasharray: 3 2;
}
.rings {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.pin {
  fill: var(--ink);
}
.stem {
  stroke: var(--ink-3);
  stroke-width: 2.5;
}
.head,
.even-head {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 2;
}
.uneven .stem {
  stroke: var(--timing);
  stroke-width: 4;
}
.uneven .head,
.uneven-head {
  fill: var(--timing);
  stroke: var(--timing);
}
.bar {
  fill: var(--ink-3);
}
.stands .bar,
.level-bar {
  fill: var(--level);
}
.hole {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.cross {
  fill: none;
  stroke: var(--ink);
  stroke-width: 3.5;
}
.event line,
.event path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.event line {
  stroke-dasharray: 2 3;
}
.event text {
  font-size: 12px;
  font-weight: 700;
  fill: var(--ink);
}
.extra {
  cursor: pointer;
  outline: none;
}
.extra path {
  pointer-events: all;
}
.extra:hover path,
.extra:focus-visible path {
  fill: var(--line);
}
.extra path,
.diamond {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.string,
.fret,
.finger {
  text-anchor: middle;
  font-size: 13px;
  fill: var(--ink);
}
.fret {
  font-weight: 700;
}
.string,
.finger {
  fill: var(--ink-2);
}
.beyond {
  text-anchor: middle;
  font-size: 11px;
  fill: var(--timing);
  font-weight: 700;
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s1) var(--s4);
  color: var(--ink-2);
}
.legend span {
  display: inline-flex;
  align-items: center;
  gap: 6px;
}
</style>
