<script setup lang="ts">
import { computed } from 'vue'

import type { Bench, PatternOf } from '../../api/client'

/** Finger combinations, one by one or in the sets teachers use. */
const pattern = defineModel<PatternOf<'slurCombinations'>>({ required: true })
const props = defineProps<{ sets: Bench['combinationSets'] }>()

/** Every combination of the sets once, by the number of fingers. */
const rows = computed(() => {
  const seen = new Map<string, number[]>()
  for (const set of props.sets) for (const c of set.combinations) seen.set(c.join(''), c)
  const all = [...seen.values()]
  return [
    { name: '2 fingers', all: all.filter((c) => c.length === 2 && c[0] !== 0) },
    { name: '3 and 4', all: all.filter((c) => c.length > 2) },
    { name: 'open', all: all.filter((c) => c[0] === 0) },
  ]
})
function has(c: number[]): boolean {
  return pattern.value.combinations.some((d) => d.join() === c.join())
}
function toggle(c: number[]) {
  const combinations = has(c)
    ? pattern.value.combinations.filter((d) => d.join() !== c.join())
    : [...pattern.value.combinations, c]
  pattern.value = { ...pattern.value, combinations }
}
</script>

<template>
  <div class="combinations" role="group" aria-label="Finger combinations">
    <div v-for="row in rows" :key="row.name" class="row">
      <span class="small quiet">{{ row.name }}</span>
      <span class="chips">
        <button
          v-for="c in row.all"
          :key="c.join('')"
          type="button"
          class="chip figures"
          :aria-pressed="has(c)"
          :aria-label="`Fingers ${c.join('')}`"
          @click="toggle(c)"
        >
          {{ c.join('') }}
        </button>
      </span>
    </div>
    <div class="row">
      <span class="small quiet">sets</span>
      <span class="chips">
        <button
          v-for="set in sets"
          :key="set.name"
          type="button"
          class="chip set"
          @click="pattern = { ...pattern, combinations: set.combinations }"
        >
          {{ set.name }}
        </button>
      </span>
    </div>
  </div>
</template>

<style scoped>
@import './form.css';
.combinations {
  display: grid;
  gap: 6px;
}
.row {
  flex-wrap: nowrap;
  align-items: baseline;
  gap: var(--s2);
}
.row > .small {
  flex: 0 0 60px;
}
.set {
  font-weight: 500;
}
</style>
