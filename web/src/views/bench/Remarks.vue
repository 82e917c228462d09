<script setup lang="ts">
import { ElButton } from 'element-plus'

import type { Fault, Mend, Remark } from '../../api/client'

/** What an instructor would say on reading the chart, each with its mending. */
defineProps<{ remarks: Remark[]; faults: Fault[] }>()
const emit = defineEmits<{ mend: [mend: Mend]; look: [notes: number[] | undefined] }>()

const names: Record<Remark['check'], string> = {
  slur: 'Slur',
  order: 'Finger order',
  reach: 'Reach',
  hands: 'Hands',
  strokes: 'Strokes',
  skips: 'Skips',
  seam: 'Next pass',
  cycle: 'Cycle',
}
</script>

<template>
  <ul v-if="remarks.length || faults.length" class="remarks" aria-label="Checks">
    <li
      v-for="f in faults"
      :key="f.field + f.text"
      data-test="fault"
      :data-of="f.field"
      class="care"
    >
      <span class="kind">Cannot be played</span>
      <span class="text">{{ f.text }}</span>
      <el-button
        v-for="m in f.mends"
        :key="m.text"
        data-test="mend"
        :data-of="f.field"
        size="small"
        @click="emit('mend', m)"
        >{{ m.text }}</el-button
      >
    </li>
    <li
      v-for="r in remarks"
      :key="r.check"
      data-test="remark"
      :data-of="r.check"
      :class="{ care: r.care }"
      @mouseenter="emit('look', r.notes)"
      @mouseleave="emit('look', undefined)"
      @focusin="emit('look', r.notes)"
      @focusout="emit('look', undefined)"
    >
      <span class="kind">{{ names[r.check] }}</span>
      <span class="text">{{ r.text }}</span>
      <el-button
        v-for="m in r.mends"
        :key="m.text"
        data-test="mend"
        :data-of="r.check"
        size="small"
        @click="emit('mend', m)"
        >{{ m.text }}</el-button
      >
    </li>
  </ul>
  <p v-else class="small quiet">Nothing to mend: it fits the neck, the hand and the beat.</p>
</template>

<style scoped>
.remarks {
  list-style: none;
  padding: 0;
  display: grid;
  gap: 2px;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--s1) var(--s2);
  padding: 5px 0 5px 10px;
  border-left: 3px solid var(--line-2);
  font-size: calc(15px * var(--scale, 1));
}
li.care {
  border-left: 6px solid var(--ink);
  padding-left: 7px;
}
.kind {
  flex: 0 0 96px;
  font-size: var(--t-small);
  color: var(--ink-2);
}
.care .kind {
  color: var(--ink);
  font-weight: 700;
}
.text {
  flex: 1 1 260px;
}
@media (width < 600px) {
  .kind {
    flex-basis: 100%;
  }
}
</style>
