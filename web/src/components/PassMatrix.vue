<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { Analysis, Chart, HeardNote } from '../api/client'
import { clampTo } from '../draw/timeline'
import { noteWords } from '../draw/notewords'

/** The passes under one another: what comes back in each is a habit, not chance. */
const props = defineProps<{ chart: Chart; analysis: Analysis; chosen?: number }>()
const emit = defineEmits<{ choose: [index: number] }>()

const size = computed(() => props.chart.notes.length)
const passes = computed(() =>
  Array.from({ length: Math.ceil(props.analysis.notes.length / size.value) }, (_, p) =>
    props.analysis.notes.slice(p * size.value, (p + 1) * size.value),
  ),
)
const row = 34
const left = 60
const box = ref<HTMLElement>()
const { width } = useElementSize(box)
const step = computed(() => Math.max(9, Math.min(48, (width.value - left - 8) / size.value)))
const limit = computed(() => Math.max(24, props.analysis.timing.audibleMs * 4))

function beyond(h: HeardNote): boolean {
  return Math.abs(h.deviationMs ?? 0) > props.analysis.timing.audibleMs
}
function height(h: HeardNote): number {
  return clampTo(h.deviationMs ?? 0, limit.value, row / 2 - 3)
}
</script>

<template>
  <div ref="box" class="scroll-x" role="region" tabindex="0" aria-label="Passes under one another">
    <svg :width="left + size * step + 4" :height="passes.length * row + 22">
      <g v-for="(pass, p) in passes" :key="p" :transform="`translate(0 ${p * row})`">
        <text x="0" :y="row / 2 + 4">Pass {{ p + 1 }}</text>
        <line class="zero" :x1="left" :x2="left + size * step" :y1="row / 2" :y2="row / 2" />
        <g
          v-for="(h, i) in pass"
          :key="h.index"
          :class="['cell', { chosen: h.index === chosen }]"
          role="button"
          :aria-label="chart.notes[i] && noteWords(chart.notes[i], h)"
          @click="emit('choose', h.index)"
        >
          <title>{{ chart.notes[i] && noteWords(chart.notes[i], h) }}</title>
          <rect class="target" :x="left + i * step" y="0" :width="step" :height="row" />
          <path
            v-if="h.status !== 'played'"
            class="missing"
            :d="`M${left + i * step + step / 2 - 3} ${row / 2 - 3}l6 6m0 -6l-6 6`"
          />
          <rect
            v-else
            :class="['bar', { beyond: beyond(h) }]"
            :x="left + i * step + 1.5"
            :width="step - 3"
            :y="row / 2 + Math.min(0, height(h))"
            :height="Math.max(1.5, Math.abs(height(h)))"
          />
        </g>
      </g>
      <g class="frets">
        <text
          v-for="(n, i) in chart.notes"
          v-show="step >= 14"
          :key="i"
          :x="left + i * step + step / 2"
          :y="passes.length * row + 15"
        >
          {{ n.finger }}
        </text>
        <text v-show="step >= 14" class="name" x="0" :y="passes.length * row + 15">finger</text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
svg {
  display: block;
  font-family: var(--type);
}
text {
  font-size: 13px;
  fill: var(--ink-2);
}
.frets text {
  text-anchor: middle;
}
.frets .name {
  text-anchor: start;
}
.zero {
  stroke: var(--line-2);
}
.cell {
  cursor: pointer;
}
.target {
  fill: transparent;
}
.cell:hover .target,
.cell.chosen .target {
  fill: var(--line);
}
.bar {
  fill: var(--ink-3);
}
.bar.beyond {
  fill: var(--timing);
}
.missing {
  stroke: var(--ink);
  stroke-width: 2;
}
</style>
