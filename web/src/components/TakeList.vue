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
          <td class="number figures" data-label="Tempo, bpm">{{ t.bpm }}</td>
          <template v-if="t.measured">
            <td class="number figures" data-label="Right notes, %">
              {{ t.measured.rightPercent.toFixed(0) }}
            </td>
            <td class="number figures" data-label="Timing spread, ms">
              {{ t.measured.spreadMs.toFixed(1) }}
            </td>
            <td class="number figures" data-label="Notes per second">
              {{ t.measured.notesPerSecond.toFixed(1) }}
            </td>
            <td><StepWord :decision="t.measured.decision" /></td>
          </template>
          <td v-else colspan="4" class="quiet">
            {{ t.state === 'failed' ? 'could not be measured' : 'waits to be measured' }}
          </td>
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
/* On a narrow screen each take is a small card. */
@media (width < 760px) {
  thead {
    display: none;
  }
  tr {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 2px var(--s4);
    padding: var(--s3) 0;
    border-bottom: var(--edge);
  }
  tr:last-child {
    border-bottom: 0;
  }
  .plain td {
    border: 0;
    padding: 0;
    text-align: left;
  }
  td[data-label] {
    display: flex;
    justify-content: space-between;
  }
  td[data-label]::before {
    content: attr(data-label);
    font-size: var(--t-small);
    color: var(--ink-2);
  }
}
</style>
