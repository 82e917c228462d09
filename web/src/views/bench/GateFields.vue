<script setup lang="ts">
import type { Gate } from '../../api/client'
import NumberLine from './NumberLine.vue'

/** What a pass must reach to be clean, and how many in a row let a student climb. */
const gate = defineModel<Gate>({ required: true })
const { faults = {} } = defineProps<{ faults?: Record<string, string> }>()

const fields: { key: keyof Gate; name: string; step: number; max: number }[] = [
  { key: 'rightPercent', name: 'Right notes, at least %', step: 1, max: 100 },
  { key: 'spreadPercent', name: 'Timing spread, at most % of the interval', step: 0.5, max: 50 },
  { key: 'levelSpreadDb', name: 'Level spread, at most dB', step: 0.5, max: 20 },
  { key: 'gapsPercent', name: 'Notes broken off, at most % (0: not asked)', step: 1, max: 100 },
  {
    key: 'ringingPercent',
    name: 'Strings that ring on, at most % (0: not asked)',
    step: 1,
    max: 100,
  },
  {
    key: 'bentPercent',
    name: 'Strings dragged aside, at most % (0: not asked)',
    step: 1,
    max: 100,
  },
  { key: 'passesInARow', name: 'Clean passes in a row', step: 1, max: 20 },
]
</script>

<template>
  <NumberLine
    v-for="f in fields"
    :key="f.key"
    :model-value="gate[f.key]"
    :name="f.name"
    :min="0"
    :max="f.max"
    :step="f.step"
    :fault="faults[`ladder.gate.${f.key}`]"
    @update:model-value="(v) => (gate = { ...gate, [f.key]: v })"
  />
</template>
