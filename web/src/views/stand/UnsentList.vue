<script setup lang="ts">
import { ElButton } from 'element-plus'

import type { Unsent } from '../../audio/unsent'
import { momentOf } from '../../draw/words'

defineProps<{ takes: Unsent[]; busy: boolean }>()
defineEmits<{ handIn: [take: Unsent]; discard: [take: Unsent] }>()
</script>

<template>
  <section class="sheet">
    <h2>Recorded, not handed in</h2>
    <p class="quiet">
      {{ takes.length === 1 ? 'This recording is' : 'These recordings are' }} kept in this browser
      until you decide.
    </p>
    <ul>
      <li v-for="t in takes" :key="t.id" class="row">
        <span class="grow">
          {{ momentOf(t.startedAt) }}, {{ (t.frames / t.rate).toFixed(0) }} s at {{ t.bpm }} bpm
        </span>
        <el-button type="primary" :disabled="busy" @click="$emit('handIn', t)">Hand in</el-button>
        <el-button :disabled="busy" @click="$emit('discard', t)">Discard</el-button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin-top: var(--s3);
  display: grid;
  gap: var(--s2);
}
</style>
