<script setup lang="ts">
import { RouterLink } from 'vue-router'

import type { TakeSummary } from '../api/client'
import { momentOf, sourceNames } from '../draw/words'
import StepWord from './StepWord.vue'

defineProps<{ takes: TakeSummary[]; withDrill?: boolean; withStudent?: boolean }>()
</script>

<template>
  <div class="scroll-x" role="region" tabindex="0" aria-label="Takes">
    <table class="plain">
      <thead>
        <tr>
          <th>Take</th>
          <th v-if="withStudent">Student</th>
          <th v-if="withDrill">Drill</th>
          <th class="number">Tempo<br />bpm</th>
          <th class="number">Right notes<br />%</th>
          <th class="number">Timing spread<br />ms</th>
          <th class="number">Notes per<br />second</th>
          <th>Then</th>
          <th>Made with</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="t in takes" :key="t.id">
          <td class="when">
            <RouterLink :to="`/takes/${t.id}`">{{ momentOf(t.recordedAt) }}</RouterLink>
          </td>
          <td v-if="withStudent">{{ t.student.name }}</td>
          <td v-if="withDrill">{{ t.drillName }}</td>
          <td class="number figures">{{ t.bpm }}</td>
          <td class="number figures">{{ t.rightPercent.toFixed(0) }}</td>
          <td class="number figures">{{ t.spreadMs.toFixed(1) }}</td>
          <td class="number figures">{{ t.notesPerSecond.toFixed(1) }}</td>
          <td><StepWord :decision="t.decision" /></td>
          <td class="quiet">{{ sourceNames[t.source] }}{{ t.demo ? ', demo' : '' }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.plain td {
  padding-block: var(--s2);
}
.when {
  white-space: nowrap;
}
</style>
