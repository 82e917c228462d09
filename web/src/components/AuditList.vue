<script setup lang="ts">
import type { AuditLine } from '../api/client'
import { momentOf } from '../draw/words'

defineProps<{ lines: AuditLine[]; names?: Map<string, string> }>()
</script>

<template>
  <ul data-test="audit-lines">
    <li v-for="l in lines" :key="l.id">
      <span class="quiet figures">{{ momentOf(l.at) }}</span>
      <span
        >{{ l.actor }} {{ l.did }} <b>{{ l.about }}</b><template
          v-if="l.studentId && names?.get(l.studentId) && names.get(l.studentId) !== l.about"
          >, {{ names.get(l.studentId) }}</template
        ></span
      >
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  display: grid;
  gap: var(--s1);
}
li {
  display: grid;
  grid-template-columns: minmax(9em, max-content) 1fr;
  gap: var(--s3);
}
@media (width < 600px) {
  li {
    grid-template-columns: 1fr;
    gap: 0;
  }
}
</style>
