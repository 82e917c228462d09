<script setup lang="ts">
/** The beat of the bar, seen as it is heard. */
defineProps<{ beats: number; beat?: number; count?: number }>()
</script>

<template>
  <p class="beats" aria-hidden="true">
    <span v-for="b in beats" :key="b" :class="{ on: b - 1 === beat, first: b === 1 }">{{
      count !== undefined && b - 1 === beat ? count : b
    }}</span>
  </p>
</template>

<style scoped>
.beats {
  display: flex;
  gap: clamp(4px, 0.7vw, 12px);
}
span {
  width: clamp(30px, 4vw, 72px);
  aspect-ratio: 1;
  display: grid;
  place-items: center;
  border: 2px solid var(--line-2);
  border-radius: 8px;
  font-size: clamp(16px, 2.2vw, 40px);
  font-weight: 700;
  color: var(--ink-3);
  font-variant-numeric: tabular-nums;
}
.first {
  border-color: var(--ink-2);
}
.on {
  background: var(--ink);
  border-color: var(--ink);
  color: var(--ground);
}
</style>
