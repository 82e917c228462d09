<script setup lang="ts">
import type { Group } from '../api/client'

/** Chooses all of a group at once, or none of it. */
defineProps<{ groups: Group[]; whole: (g: Group) => boolean }>()
const emit = defineEmits<{ turn: [g: Group] }>()
</script>

<template>
  <div v-if="groups.length" class="chips" role="group" aria-label="Groups">
    <button
      v-for="g in groups"
      :key="g.id"
      data-test="group"
      :data-of="g.name"
      type="button"
      class="chip"
      :aria-pressed="whole(g)"
      @click="emit('turn', g)"
    >
      {{ g.name }}
    </button>
  </div>
</template>

<style scoped>
@import '../views/bench/form.css';
</style>
