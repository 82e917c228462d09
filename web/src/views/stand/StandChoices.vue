<script setup lang="ts">
import { ElSlider } from 'element-plus'

import ChoiceLine from '../bench/ChoiceLine.vue'
import SwitchLine from '../bench/SwitchLine.vue'
import { live, pause, shown, spoken, volume } from './choices'

/** What somebody chooses for the stand, on this device. */
const pictures = [
  { label: 'Tab', value: 'tab' },
  { label: 'Neck', value: 'neck' },
  { label: 'Both', value: 'both' },
] as const
const pauses = [3, 5, 8, 15].map((value) => ({ label: `${value} s`, value }))
</script>

<template>
  <div class="choices">
    <ChoiceLine v-model="shown" name="While playing" :options="pictures" />
    <ChoiceLine v-model="pause" name="Between takes" :options="pauses" />
    <SwitchLine v-model="live" name="Mark notes as they are played" />
    <SwitchLine v-model="spoken" name="Say the verdict aloud" />
    <label class="line">
      <span>Click volume</span>
      <el-slider v-model="volume" :min="0" :max="100" aria-label="Click volume" />
    </label>
  </div>
</template>

<style scoped>
.choices {
  display: grid;
  gap: var(--s2);
  font-size: var(--t-body);
}
.line {
  display: grid;
  grid-template-columns: minmax(7em, auto) minmax(0, 1fr);
  gap: var(--s4);
  align-items: center;
}
</style>
