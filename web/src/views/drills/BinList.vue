<script setup lang="ts">
import { ElButton } from 'element-plus'

import type { Binned } from '../../api/client'
import { dayOf, momentOf } from '../../draw/words'

/** What was deleted or taken back, to be brought back. */
defineProps<{ binned: Binned[] }>()
const emit = defineEmits<{ bringBack: [what: Binned] }>()

function what(b: Binned): string {
  if (b.kind === 'assignment') return `withdrawn from ${b.student}`
  if (b.kind === 'routine') return `routine of ${b.student} deleted`
  return `${b.kind} deleted`
}
</script>

<template>
  <div v-if="binned.length" class="sheet list">
    <article v-for="b in binned" :key="b.kind + b.id">
      <div class="grow">
        <h2>{{ b.name }}</h2>
        <p class="quiet">
          {{ what(b) }}, {{ momentOf(b.at) }}; can be brought back until {{ dayOf(b.until) }}
        </p>
      </div>
      <el-button
        data-test="bring-back"
        :data-of="b.name"
        :aria-label="`Bring back ${b.name}`"
        @click="emit('bringBack', b)"
        >Bring back</el-button
      >
    </article>
  </div>
  <div v-else class="sheet">
    <p data-test="nothing-deleted">
      Nothing was deleted or withdrawn lately. Whatever is, lies here for 30 days; takes are kept
      for good.
    </p>
  </div>
</template>

<style scoped>
.list {
  padding: 0 var(--s4);
}
article {
  display: flex;
  align-items: center;
  gap: var(--s3);
  padding: var(--s3) 0;
  border-bottom: var(--edge);
}
article:last-child {
  border-bottom: 0;
}
</style>
