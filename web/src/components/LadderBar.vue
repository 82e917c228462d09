<script setup lang="ts">
import { computed } from 'vue'

import type { Ladder } from '../api/client'

const props = defineProps<{ ladder: Ladder; bpm: number }>()

const share = computed(() => {
  const { startBpm, targetBpm } = props.ladder
  return targetBpm > startBpm ? (props.bpm - startBpm) / (targetBpm - startBpm) : 1
})
</script>

<template>
  <div
    class="ladder"
    role="img"
    :aria-label="`At ${bpm} bpm, from ${ladder.startBpm} to ${ladder.targetBpm}`"
  >
    <span class="figures">{{ ladder.startBpm }}</span>
    <span class="rail"><span class="done" :style="{ width: `${share * 100}%` }" /></span>
    <span class="figures">{{ ladder.targetBpm }}</span>
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
