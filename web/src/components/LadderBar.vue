<script setup lang="ts">
import { computed } from 'vue'

import type { Climb, Rung } from '../api/client'
import { rungWords } from '../draw/words'

/** Where a student stands between the first rung and the last. */
const props = defineProps<{ climb: Climb; rung: Rung }>()

const share = computed(() => {
  const { below, rungs } = props.climb
  return rungs > 1 ? Math.min(1, below / (rungs - 1)) : 1
})
const short = (r: Rung) => (props.climb.mixed ? `${r.bpm} × ${r.notesPerBeat}` : `${r.bpm}`)
const words = (r: Rung) => rungWords(r, props.climb.mixed)
</script>

<template>
  <div
    class="ladder"
    role="img"
    :aria-label="`At ${words(rung)}, from ${words(climb.first)} to ${words(climb.last)}`"
  >
    <span class="figures">{{ short(climb.first) }}</span>
    <span class="rail"><span class="done" :style="{ width: `${share * 100}%` }" /></span>
    <span class="figures">{{ short(climb.last) }}</span>
  </div>
</template>

<style scoped>
.ladder {
  display: flex;
  align-items: center;
  gap: var(--s2);
  font-size: var(--t-small);
  color: var(--ink-2);
}
.rail {
  flex: 1;
  height: 8px;
  min-width: 60px;
  background: var(--line);
  border-radius: 4px;
  overflow: hidden;
}
.done {
  display: block;
  height: 100%;
  background: var(--ink);
}
</style>
