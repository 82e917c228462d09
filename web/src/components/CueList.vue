<script setup lang="ts">
/** How to move: two sentences at the most. */
defineProps<{ cues: string[] }>()
</script>

<template>
  <ul v-if="cues.length" class="cues" aria-label="How to move">
    <li v-for="c in cues" :key="c">{{ c }}</li>
  </ul>
</template>

<style scoped>
.cues {
  list-style: none;
  padding: 0 0 0 var(--s3);
  border-left: 6px solid var(--ink);
  max-width: 34em;
}
</style>
