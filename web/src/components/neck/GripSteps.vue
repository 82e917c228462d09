<script setup lang="ts">
/** From one place of the hand to the next, of a drill that moves. */
defineProps<{
  /** The fret under the first finger. */
  position: number
  at: number
  of: number
  /** Whether rings show its other places; they may all lie under this one. */
  ringed: boolean
}>()
const emit = defineEmits<{ show: [at: number] }>()
</script>

<template>
  <p class="grips small">
    <button
      type="button"
      aria-label="The hand’s place before"
      :disabled="at === 0"
      @click="emit('show', at - 1)"
    >
      ‹
    </button>
    <span>
      The hand at fret {{ position }}, {{ at + 1 }} of {{ of
      }}<template v-if="ringed">; rings are its other places</template>
    </span>
    <button
      type="button"
      aria-label="The hand’s next place"
      :disabled="at === of - 1"
      @click="emit('show', at + 1)"
    >
      ›
    </button>
  </p>
</template>

<style scoped>
.grips {
  display: flex;
  align-items: center;
  gap: var(--s2);
}
.grips button {
  width: 34px;
  height: 30px;
  border: 1px solid var(--line-2);
  border-radius: 4px;
  background: var(--sheet);
  color: var(--ink);
  cursor: pointer;
}
.grips button:disabled {
  opacity: 0.4;
}
@media print {
  .grips button {
    display: none;
  }
}
</style>
