<script setup lang="ts">
import { RouterLink } from 'vue-router'

import type { TakeComment } from '../api/client'
import { momentOf } from '../draw/words'

/** Comments, each of which leads to its note. */
defineProps<{ comments: TakeComment[]; withStudent?: boolean }>()
</script>

<template>
  <ul>
    <li v-for="c in comments" :key="c.id">
      <b>{{ c.author.name }}</b> on
      <RouterLink :to="{ path: `/takes/${c.takeId}`, query: { note: c.note } }"
        >{{ c.drillName
        }}<template v-if="withStudent"> by {{ c.student.name }}</template></RouterLink
      >, {{ momentOf(c.writtenAt) }}: “{{ c.text }}”
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  display: grid;
  gap: var(--s2);
  margin-top: var(--s2);
}
</style>
