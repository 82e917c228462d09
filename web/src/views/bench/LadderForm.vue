<script setup lang="ts">
import { ElInputNumber } from 'element-plus'

import type { Ladder } from '../../api/client'

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

function setTempo(key: Tempo, v: number | undefined) {
  if (v !== undefined) ladder.value = { ...ladder.value, [key]: v }
}
function setGate(key: keyof Ladder['gate'], v: number | undefined) {
  if (v !== undefined) ladder.value = { ...ladder.value, gate: { ...ladder.value.gate, [key]: v } }
}
</script>

<template>
  <fieldset>
    <legend>Tempo ladder</legend>
    <template v-for="t in tempi" :key="t.key">
      <label class="line">
        <span>{{ t.name }}</span>
        <el-input-number
          :model-value="ladder[t.key]"
          :min="1"
          :max="t.max"
          :aria-label="t.name"
          @update:model-value="(v) => setTempo(t.key, v)"
        />
      </label>
      <p v-if="faults[`ladder.${t.key}`]" class="fault" role="alert">
        {{ faults[`ladder.${t.key}`] }}
      </p>
    </template>
  </fieldset>
  <fieldset>
    <legend>Gate: what lets the student climb</legend>
    <template v-for="g in gates" :key="g.key">
      <label class="line">
        <span>{{ g.name }}</span>
        <el-input-number
          :model-value="ladder.gate[g.key]"
          :min="0"
          :max="g.max"
          :step="g.step"
          :aria-label="g.name"
          @update:model-value="(v) => setGate(g.key, v)"
        />
      </label>
      <p v-if="faults[`ladder.gate.${g.key}`]" class="fault" role="alert">
        {{ faults[`ladder.gate.${g.key}`] }}
      </p>
    </template>
  </fieldset>
</template>

<style scoped>
@import './form.css';
</style>
