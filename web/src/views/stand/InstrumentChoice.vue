<script setup lang="ts">
import { onMounted, ref } from 'vue'

import { midiInputs, simulatedDevice } from '../../audio/instruments'
import { midiDevice } from './choices'

/** Which MIDI instrument is played; one that is simulated ships. */
const found = ref<{ id: string; name: string }[]>([])
onMounted(async () => (found.value = await midiInputs()))
const isThere = (id: string) => id === simulatedDevice || found.value.some((i) => i.id === id)
</script>

<template>
  <label class="row">
    <span>Instrument</span>
    <select v-model="midiDevice" class="which">
      <option v-for="i in found" :key="i.id" :value="i.id">{{ i.name }}</option>
      <option :value="simulatedDevice">Simulated, to try it out</option>
      <option v-if="!isThere(midiDevice)" :value="midiDevice">One that is not there now</option>
    </select>
  </label>
</template>

<style scoped>
.which {
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--line-2);
  border-radius: var(--round);
  padding: 6px 10px;
  min-height: 40px;
  max-width: 100%;
}
</style>
