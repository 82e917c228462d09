<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref } from 'vue'

import { answer, client, type House } from '../api/client'

/** The demo's takes arrive while it is looked at: how many are there. */
const emit = defineEmits<{ more: [] }>()
const making = ref<House['making']>()
const every = 4000 // ms
let next: ReturnType<typeof setTimeout> | undefined
let left = false

async function look() {
  const before = making.value?.made
  making.value = (await answer(client.GET('/house')).catch(() => undefined))?.making
  if (left) return
  if (before !== undefined && before !== making.value?.made) emit('more')
  if (making.value) next = setTimeout(look, every)
}
onMounted(look)
onBeforeUnmount(() => {
  left = true
  clearTimeout(next)
})
</script>

<template>
  <p v-if="making" class="sheet" role="status">
    The demo is still being made: {{ making.made }} of {{ making.all }} takes are there. What is
    said of the students changes until all are.
    <progress :value="making.made" :max="making.all" aria-label="Takes of the demo"></progress>
  </p>
</template>

<style scoped>
progress {
  width: 100%;
  accent-color: var(--ink);
}
</style>
