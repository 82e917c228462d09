<script setup lang="ts">
import { ElButton, ElPopover } from 'element-plus'

import type { Difficulty } from '../../api/client'

/** How hard a drill is, and what that is made of. */
defineProps<{ difficulty: Difficulty }>()
const emit = defineEmits<{ weigh: [] }>()

const names: Record<string, string> = {
  stretch: 'Stretch',
  pairs: 'Weak pairs',
  crossings: 'String crossings',
  skips: 'Strings skipped',
  shifts: 'Shifts',
  hands: 'Taps and two hands',
  speed: 'Speed at the start',
}
</script>

<template>
  <el-popover trigger="click" :width="360">
    <template #reference>
      <button type="button" class="figure">
        <b class="figures">{{ difficulty.total.toFixed(1) }}</b> of 10 hard
      </button>
    </template>
    <table class="plain">
      <tbody>
        <tr v-for="p in difficulty.parts" :key="p.name">
          <th scope="row">{{ names[p.name] }}</th>
          <td class="bar">
            <span :style="{ width: `${p.value * 10}%` }" />
          </td>
          <td class="number figures">{{ p.value.toFixed(1) }}</td>
          <td class="number figures quiet">× {{ p.weight }}</td>
        </tr>
      </tbody>
    </table>
    <p class="small quiet">
      Each part from 0 to 10: {{ difficulty.parts.map((p) => p.text).join(', ') }}. The figure is a
      weighted mean in which the hardest parts decide most; teachers differ on what is hard, so the
      weights are yours to set.
    </p>
    <el-button size="small" @click="emit('weigh')">Set the weights</el-button>
  </el-popover>
</template>

<style scoped>
.figure {
  border: 0;
  background: none;
  padding: 0;
  font: inherit;
  color: inherit;
  cursor: pointer;
  text-decoration: underline dotted var(--line-2);
  text-underline-offset: 4px;
}
.figure b {
  font-size: var(--t-lead);
}
.plain th,
.plain td {
  padding: 3px 6px 3px 0;
  border: 0;
  font-size: var(--t-small);
}
.bar {
  width: 110px;
}
.bar span {
  display: block;
  height: 9px;
  min-width: 1px;
  background: var(--ink-2);
}
p {
  margin: var(--s2) 0;
}
</style>
