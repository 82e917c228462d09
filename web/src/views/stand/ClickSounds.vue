<script setup lang="ts">
import { ElSlider } from 'element-plus'

import ChoiceLine from '../bench/ChoiceLine.vue'
import { voice, volume } from './choices'

/** What the click sounds like. */
const sounds = [
  { label: 'Usual', value: 'usual' },
  { label: 'High', value: 'high' },
  { label: 'Low', value: 'low' },
] as const
const ears = [
  { label: 'Both', value: 'both' },
  { label: 'Left', value: 'left' },
  { label: 'Right', value: 'right' },
] as const
</script>

<template>
  <div class="sounds">
    <ChoiceLine v-model="voice.sound" name="Click" :options="sounds" />
    <ChoiceLine v-model="voice.ears" name="In which ear" :options="ears" />
    <label class="volume">
      <span>Click volume</span>
      <el-slider v-model="volume" :min="0" :max="100" aria-label="Click volume" />
    </label>
  </div>
</template>

<style scoped>
.sounds {
  display: grid;
  gap: var(--s2);
}
.volume {
  display: grid;
  grid-template-columns: minmax(7em, auto) minmax(0, 1fr);
  gap: var(--s4);
  align-items: center;
}
</style>
