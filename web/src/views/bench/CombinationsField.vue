<script setup lang="ts">
import { computed } from 'vue'

import type { Bench, PatternOf } from '../../api/client'
import { readCombinations, writeCombinations } from '../../bench/lists'
import ListLine from './ListLine.vue'

/** Finger combinations in the order played, each as often as it comes. */
const pattern = defineModel<PatternOf<'slurCombinations'>>({ required: true })
const props = defineProps<{ sets: Bench['combinationSets'] }>()

const chosen = computed(() => pattern.value.combinations)
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
function set(combinations: number[][]) {
  pattern.value = { ...pattern.value, combinations }
}
function typed(text: string) {
  const { value } = readCombinations(text)
  set(value)
}
</script>

<template>
  <div class="combinations" role="group" aria-label="Finger combinations">
    <ListLine
      data-test="combinations"
      name="Combinations"
      hint="in the order played"
      :text="writeCombinations(chosen)"
      :unread="(text) => readCombinations(text).rest"
      @typed="typed"
    />
    <div v-if="chosen.length" class="row">
      <span class="small quiet">played</span>
      <span class="chips">
        <button
          v-for="(c, at) in chosen"
          :key="at"
          data-test="leave-out"
          :data-of="c.join('')"
          type="button"
          class="chip figures"
          aria-pressed="true"
          :aria-label="`Leave out ${c.join('')}, number ${at + 1}`"
          title="Press to leave it out"
          @click="set(chosen.toSpliced(at, 1))"
        >
          {{ c.join('') }}
        </button>
      </span>
    </div>
    <div v-for="row in rows" :key="row.name" class="row">
      <span class="small quiet">{{ row.name }}</span>
      <span class="chips">
        <button
          v-for="c in row.all"
          :key="c.join('')"
          data-test="add-fingers"
          :data-of="c.join('')"
          type="button"
          class="chip figures"
          :aria-label="`Add fingers ${c.join('')}`"
          @click="set([...chosen, c])"
        >
          {{ c.join('') }}
        </button>
      </span>
    </div>
    <div class="row">
      <span class="small quiet">sets</span>
      <span class="chips">
        <button
          v-for="s in sets"
          :key="s.name"
          type="button"
          class="chip group"
          @click="set(s.combinations)"
        >
          {{ s.name }}
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
.group {
  font-weight: 500;
}
</style>
