<script setup lang="ts">
import { onMounted, ref } from 'vue'

import type { Place } from '../../draw/neck'
import type { NeckFrame } from './frame'

/** Which finger plays a place: one of four, or the proposed one (0). */
defineProps<{ frame: NeckFrame; place: Place }>()
const emit = defineEmits<{ choose: [finger: number]; close: [] }>()

const menu = ref<HTMLElement>()
onMounted(() => menu.value?.querySelector('button')?.focus())
function left(event: FocusEvent) {
  if (!menu.value?.contains(event.relatedTarget as Node)) emit('close')
}
</script>

<template>
  <div
    ref="menu"
    class="menu"
    role="menu"
    :aria-label="`Finger for string ${place.string} fret ${place.fret}`"
    :style="{
      left: `${Math.min(frame.width - 250, Math.max(0, frame.finger(place.fret) - 110))}px`,
      top: `${frame.y(place.string) + 16}px`,
    }"
    @keydown.esc="emit('close')"
    @focusout="left"
  >
    <button
      v-for="f in 4"
      :key="f"
      data-test="finger"
      :data-of="f"
      type="button"
      role="menuitem"
      class="figures"
      @click="emit('choose', f)"
    >
      {{ f }}
    </button>
    <button type="button" role="menuitem" @click="emit('choose', 0)">proposed</button>
  </div>
</template>

<style scoped>
.menu {
  position: absolute;
  z-index: 5;
  display: flex;
  gap: 3px;
  padding: 5px;
  background: var(--sheet);
  border: 1px solid var(--ink);
  border-radius: var(--round);
  box-shadow: 0 3px 12px rgb(0 0 0 / 25%);
}
.menu button {
  min-width: 34px;
  border: 1px solid var(--line-2);
  border-radius: 4px;
  background: var(--sheet);
  color: var(--ink);
  font-size: 15px;
  font-weight: 600;
  padding: 4px 7px;
  cursor: pointer;
}
.menu button:hover,
.menu button:focus-visible {
  background: var(--ink);
  color: var(--sheet);
}
</style>
