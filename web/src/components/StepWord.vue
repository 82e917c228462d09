<script setup lang="ts">
import { computed } from 'vue'

import type { Decision } from '../api/client'

const props = defineProps<{ decision: Decision; large?: boolean }>()

const text = computed(() => {
  const d = props.decision
  if (d.reached) return 'Target reached'
  if (!d.counts) return 'Counts for nothing'
  const to =
    d.next.notesPerBeat === d.at.notesPerBeat
      ? `${d.next.bpm}`
      : `${d.next.bpm} × ${d.next.notesPerBeat}`
  return { up: `Up to ${to}`, hold: `Hold ${to}`, down: `Down to ${to}` }[d.step]
})
const path = computed(() => {
  if (props.decision.reached) return 'M3 13l6 6L21 5'
  if (!props.decision.counts) return 'M5 12h3M11 12h3M17 12h3'
  return { up: 'M12 21V4M5 11l7-7l7 7', hold: 'M4 9h16M4 15h16', down: 'M12 3v17M5 13l7 7l7-7' }[
    props.decision.step
  ]
})
</script>

<template>
  <span :class="['step', { large }]">
    <svg viewBox="0 0 24 24" aria-hidden="true"><path :d="path" /></svg>{{ text }}
  </span>
</template>

<style scoped>
.step {
  display: inline-flex;
  align-items: center;
  gap: 0.4em;
  font-weight: 700;
  white-space: nowrap;
}
svg {
  width: 1.05em;
  height: 1.05em;
  flex: none;
}
path {
  fill: none;
  stroke: currentcolor;
  stroke-width: 3;
}
.large {
  font-size: clamp(34px, 5vw, var(--t-giant));
  line-height: 1.1;
}
</style>
