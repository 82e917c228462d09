<script setup lang="ts">
import type { Ladder } from '../../api/client'
import NumberLine from './NumberLine.vue'

const ladder = defineModel<Ladder>({ required: true })
defineProps<{ faults: Record<string, string> }>()

type Tempo = 'startBpm' | 'stepBpm' | 'targetBpm'
const tempi: { key: Tempo; name: string; max: number }[] = [
  { key: 'startBpm', name: 'Start, bpm', max: 320 },
  { key: 'stepBpm', name: 'Step, bpm', max: 60 },
  { key: 'targetBpm', name: 'Target, bpm', max: 320 },
]
const gates: { key: keyof Ladder['gate']; name: string; step: number; max: number }[] = [
  { key: 'rightPercent', name: 'Right notes, at least %', step: 1, max: 100 },
  { key: 'spreadPercent', name: 'Timing spread, at most % of the interval', step: 0.5, max: 50 },
  { key: 'levelSpreadDb', name: 'Level spread, at most dB', step: 0.5, max: 20 },
  { key: 'passesInARow', name: 'Clean passes in a row', step: 1, max: 20 },
]

function setTempo(key: Tempo, v: number) {
  ladder.value = { ...ladder.value, [key]: v }
}
function setGate(key: keyof Ladder['gate'], v: number) {
  ladder.value = { ...ladder.value, gate: { ...ladder.value.gate, [key]: v } }
}
</script>

<template>
  <fieldset>
    <legend>Tempo ladder</legend>
    <NumberLine
      v-for="t in tempi"
      :key="t.key"
      :model-value="ladder[t.key]"
      :name="t.name"
      :min="1"
      :max="t.max"
      :fault="faults[`ladder.${t.key}`]"
      @update:model-value="(v) => setTempo(t.key, v)"
    />
  </fieldset>
  <fieldset>
    <legend>Gate: what lets the student climb</legend>
    <NumberLine
      v-for="g in gates"
      :key="g.key"
      :model-value="ladder.gate[g.key]"
      :name="g.name"
      :min="0"
      :max="g.max"
      :step="g.step"
      :fault="faults[`ladder.gate.${g.key}`]"
      @update:model-value="(v) => setGate(g.key, v)"
    />
  </fieldset>
</template>

<style scoped>
@import './form.css';
</style>
