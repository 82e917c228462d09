<script setup lang="ts">
import { ElOption, ElSegmented, ElSelect } from 'element-plus'
import { computed } from 'vue'

import type { Pattern } from '../../api/client'
import { combinations, freshFingers, freshSlurs, orders } from './fresh'

const pattern = defineModel<Pattern>({ required: true })
defineProps<{ fault?: string }>()

const kinds = [
  { label: 'Finger slurs', value: 'slurCombinations' },
  { label: 'One finger per fret', value: 'fingerPerFret' },
]
const slurs = [
  { label: 'Hammer-on', value: 'hammer' },
  { label: 'Pull-off', value: 'pull' },
  { label: 'Both', value: 'both' },
]
const kind = computed({
  get: () => pattern.value.kind,
  set: (k) => (pattern.value = k === 'fingerPerFret' ? freshFingers() : freshSlurs()),
})
const slur = computed({
  get: () => (pattern.value.kind === 'slurCombinations' ? pattern.value.slur : 'hammer'),
  set: (slur) => {
    if (pattern.value.kind === 'slurCombinations') pattern.value = { ...pattern.value, slur }
  },
})
const order = computed({
  get: () => (pattern.value.kind === 'fingerPerFret' ? pattern.value.order.join('-') : ''),
  set: (text) => (pattern.value = { kind: 'fingerPerFret', order: text.split('-').map(Number) }),
})

function has(c: number[]): boolean {
  const p = pattern.value
  return p.kind === 'slurCombinations' && p.combinations.some((d) => d.join() === c.join())
}
/** Chosen combinations stay in graded order. */
function toggle(c: number[]) {
  const p = pattern.value
  if (p.kind !== 'slurCombinations') return
  const chosen = combinations.flatMap((g) => g.all).filter((d) => (d === c ? !has(d) : has(d)))
  pattern.value = { ...p, combinations: chosen }
}
</script>

<template>
  <fieldset>
    <legend>Pattern</legend>
    <el-segmented v-model="kind" :options="kinds" block aria-label="Pattern" />
    <template v-if="pattern.kind === 'slurCombinations'">
      <div v-for="group in combinations" :key="group.of" class="group">
        <span class="small quiet">{{ group.of }}</span>
        <button
          v-for="c in group.all"
          :key="c.join('')"
          type="button"
          class="chip figures"
          :aria-pressed="has(c)"
          :aria-label="`Fingers ${c.join('')}`"
          @click="toggle(c)"
        >
          {{ c.join('') }}
        </button>
      </div>
      <el-segmented v-model="slur" :options="slurs" block aria-label="Slurs" />
    </template>
    <label v-else class="line">
      <span>Finger order</span>
      <el-select v-model="order" filterable aria-label="Finger order" style="width: 140px">
        <el-option v-for="o in orders()" :key="o.join('-')" :value="o.join('-')" />
      </el-select>
    </label>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
  </fieldset>
</template>

<style scoped>
@import './form.css';
.group {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.group > span {
  width: 62px;
}
</style>
