<script setup lang="ts">
/** Where it aches, one press each. */
const aches = defineModel<string[]>({ required: true })
defineProps<{ places: string[] }>()

function turn(place: string) {
  aches.value = aches.value.includes(place)
    ? aches.value.filter((p) => p !== place)
    : [...aches.value, place]
}
</script>

<template>
  <div class="places" role="group" aria-label="Where it aches">
    <button
      v-for="p in places"
      :key="p"
      data-test="ache"
      :data-of="p"
      type="button"
      :aria-pressed="aches.includes(p)"
      @click="turn(p)"
    >
      {{ p }}
    </button>
  </div>
</template>

<style scoped>
.places {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
}
button {
  min-height: 44px;
  padding: 6px 14px;
  font: inherit;
  color: var(--ink);
  background: none;
  border: 1px solid var(--line-2);
  border-radius: 99px;
  cursor: pointer;
}
button[aria-pressed='true'] {
  background: var(--ink);
  border-color: var(--ink);
  color: var(--ground);
}
</style>
