<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { Chart } from '../api/client'
import type { NoteRow } from '../draw/noterows'
import { clampTo } from '../draw/timeline'
import { useRoving } from './roving'

/** Rows of bars under one another, one bar for each note of the chart. */
const props = defineProps<{ chart: Chart; rows: NoteRow[]; label: string; chosen?: number }>()
const emit = defineEmits<{ choose: [index: number] }>()

const row = 34
const left = computed(() => 12 + 7.5 * Math.max(...props.rows.map((r) => r.name.length)))
const size = computed(() => props.chart.notes.length)
const box = ref<HTMLElement>()
const { width } = useElementSize(box)
const step = computed(() => Math.max(9, Math.min(48, (width.value - left.value - 8) / size.value)))

const pressable = computed(() => props.rows.flatMap((r) => r.cells.map((c) => c.index)))
const { tabindexOf, onFocus, onKeydown } = useRoving(() => {
  const first = pressable.value.find((i) => i !== undefined)
  return first === undefined ? undefined : String(first)
})

function choose(index: number | undefined) {
  if (index !== undefined) emit('choose', index)
}
</script>

<template>
  <div
    ref="box"
    class="scroll-x"
    role="region"
    tabindex="0"
    :aria-label="label"
    @focusin="onFocus"
    @keydown="onKeydown"
  >
    <svg :width="left + size * step + 4" :height="rows.length * row + 22">
      <g v-for="(r, p) in rows" :key="p" :transform="`translate(0 ${p * row})`">
        <text x="0" :y="row / 2 + 4">{{ r.name }}</text>
        <line class="zero" :x1="left" :x2="left + size * step" :y1="row / 2" :y2="row / 2" />
        <g
          v-for="(c, i) in r.cells"
          :key="i"
          :class="[
            'cell',
            r.lane,
            { beyond: c.beyond, chosen: c.index !== undefined && c.index === chosen },
          ]"
          :role="c.index === undefined ? 'img' : 'button'"
          :aria-label="c.words"
          :data-roving="c.index"
          :tabindex="c.index === undefined ? undefined : tabindexOf(String(c.index))"
          @click="choose(c.index)"
        >
          <title>{{ c.words }}</title>
          <rect class="target" :x="left + i * step" y="0" :width="step" :height="row" />
          <path
            v-if="c.down === undefined"
            class="missing"
            :d="`M${left + i * step + step / 2 - 3} ${row / 2 - 3}l6 6m0 -6l-6 6`"
          />
          <rect
            v-else
            class="bar"
            :x="left + i * step + 1.5"
            :width="step - 3"
            :y="row / 2 + Math.min(0, clampTo(c.down, 1, row / 2 - 3))"
            :height="Math.max(1.5, Math.abs(clampTo(c.down, 1, row / 2 - 3)))"
          />
        </g>
      </g>
      <g v-if="step >= 14" class="fingers">
        <text
          v-for="(n, i) in chart.notes"
          :key="i"
          :x="left + i * step + step / 2"
          :y="rows.length * row + 15"
        >
          {{ n.finger }}
        </text>
        <text class="name" x="0" :y="rows.length * row + 15">finger</text>
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
.fingers text {
  text-anchor: middle;
}
.fingers .name {
  text-anchor: start;
}
.zero {
  stroke: var(--line-2);
}
.cell[role='button'] {
  cursor: pointer;
}
.target {
  fill: transparent;
}
.cell[role='button']:hover .target,
.cell:focus-visible .target,
.cell.chosen .target {
  fill: var(--line);
}
.bar {
  fill: var(--ink-3);
}
.timing.beyond .bar {
  fill: var(--timing);
}
.level.beyond .bar {
  fill: var(--level);
}
.missing {
  stroke: var(--ink);
  stroke-width: 2;
}
</style>
