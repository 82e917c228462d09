<script setup lang="ts">
import { RouterLink } from 'vue-router'

import type { Move } from '../api/client'
import { momentOf, rungWords } from '../draw/words'

/** What led a student to where they stand, the latest first. */
defineProps<{ moves: Move[]; mixed?: boolean }>()
const words = { up: 'up to', hold: 'stays at', down: 'down to', set: 'set to' }
</script>

<template>
  <ul data-test="moves">
    <li v-for="m in moves" :key="m.id">
      <span class="quiet figures when">
        <RouterLink v-if="m.takeId" :to="`/takes/${m.takeId}`">{{ momentOf(m.at) }}</RouterLink>
        <template v-else>{{ momentOf(m.at) }}</template>
      </span>
      <b class="figures">{{ words[m.step] }} {{ rungWords(m.rung, mixed) }}</b>
      <span>
        <template v-if="m.author">{{ m.author }}: “{{ m.reason }}”</template>
        <template v-else>{{ m.reason }}</template>
      </span>
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  display: grid;
  gap: var(--s2);
}
li {
  display: grid;
  grid-template-columns: 10em minmax(8em, max-content) 1fr;
  gap: 0 var(--s3);
}
@media (width < 700px) {
  li {
    grid-template-columns: 1fr 1fr;
  }
  li span:last-child {
    grid-column: 1 / -1;
  }
}
</style>
