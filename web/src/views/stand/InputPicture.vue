<script setup lang="ts">
import { computed } from 'vue'

import { barSeconds, floorDb, inputAdvice, looksBack, type InputLevel } from '../../audio/input'

/** How loud the input has been during the last seconds, and what to do about it. */
const props = defineProps<{ input: InputLevel; stamp: number }>()

const most = looksBack / barSeconds
const bars = computed(() => {
  void props.stamp
  const { bars } = props.input
  return bars.map((db, i) => ({
    x: most - bars.length + i,
    height: Math.max(1, (100 * (db - floorDb)) / -floorDb),
    clipped: props.input.isClipped(i),
  }))
})
const word = computed(() => {
  void props.stamp
  return props.input.word
})
</script>

<template>
  <div class="input" :class="word">
    <svg :viewBox="`0 0 ${most} 100`" preserveAspectRatio="none" aria-hidden="true">
      <rect class="ground" x="0" y="0" :width="most" height="100" />
      <rect
        v-for="b in bars"
        :key="b.x"
        :class="{ clipped: b.clipped }"
        :x="b.x + 0.1"
        :y="100 - b.height"
        width="0.8"
        :height="b.height"
      />
    </svg>
    <p role="status">{{ word ? inputAdvice[word] : 'Listening …' }}</p>
  </div>
</template>

<style scoped>
.input {
  display: grid;
  grid-template-columns: minmax(160px, 1fr) minmax(0, 2fr);
  align-items: center;
  gap: var(--s2) var(--s4);
}
svg {
  width: 100%;
  height: 56px;
  border-radius: var(--round);
}
rect {
  fill: var(--ink-2);
}
.ground {
  fill: var(--sheet-2);
}
.clipped {
  fill: var(--level);
}
p {
  font-size: var(--t-lead);
}
.soft p,
.clipped p,
.silent p {
  font-weight: 700;
}
@media (max-width: 700px) {
  .input {
    grid-template-columns: 1fr;
  }
}
</style>
