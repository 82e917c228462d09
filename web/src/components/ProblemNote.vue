<script setup lang="ts">
import type { Problem } from '../api/client'

defineProps<{ problem: Problem }>()
</script>

<template>
  <div data-test="problem" :data-of="problem.kind" class="problem" role="alert">
    <strong>{{ problem.title }}</strong>
    <p>{{ problem.detail }}</p>
    <div v-if="$slots.default" class="row"><slot /></div>
  </div>
</template>

<style scoped>
.problem {
  border: 2px solid var(--ink);
  border-left-width: 10px;
  border-radius: var(--round);
  background: var(--sheet);
  padding: var(--s3) var(--s4);
  display: grid;
  gap: var(--s2);
}
</style>
