<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink } from 'vue-router'

import type { TakeSummary } from '../api/client'
import { asideNames, momentOf } from '../draw/words'
import StepWord from './StepWord.vue'

const props = defineProps<{ takes: TakeSummary[]; withDrill?: boolean; withStudent?: boolean }>()
const madeWith = {
  microphone: 'microphone',
  file: 'file',
  simulated: 'simulated',
  midi: 'MIDI',
  key: 'key',
}
/** Whether a tempo alone does not say how fast it is. */
const mixed = computed(
  () => new Set(props.takes.map((t) => t.rung.notesPerBeat)).size > 1 && !props.withDrill,
)
/** Whether the spread, as it is shown, is more than the gate allows. */
function beyond({ measured: m }: TakeSummary): boolean {
  return !!m && Number(m.spreadPercent.toFixed(1)) > m.decision.gate.spreadPercent
}
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
          <th class="number">of the interval<br />%, gate</th>
          <th class="number">Notes per<br />second</th>
          <th>Then</th>
          <th>Made with</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="t in takes" :key="t.id">
          <td class="when">
            <RouterLink data-test="take" :to="`/takes/${t.id}`">{{
              momentOf(t.recordedAt)
            }}</RouterLink>
          </td>
          <td v-if="withStudent">{{ t.student.name }}</td>
          <td v-if="withDrill">{{ t.drillName }}</td>
          <td class="number figures" data-label="Tempo, bpm">
            {{ t.rung.bpm }}<span v-if="mixed" class="quiet"> × {{ t.rung.notesPerBeat }}</span>
          </td>
          <template v-if="t.measured">
            <td class="number figures" data-label="Right notes, %">
              {{ Number(t.measured.rightPercent.toFixed(1)) }}
            </td>
            <td class="number figures" data-label="Timing spread, ms">
              {{ t.measured.spreadMs.toFixed(1) }}
            </td>
            <td class="number figures" data-label="%, gate">
              <span :class="{ beyond: beyond(t) }">{{ t.measured.spreadPercent.toFixed(1) }}</span>
              <span class="quiet"> / {{ t.measured.decision.gate.spreadPercent }}</span>
            </td>
            <td class="number figures" data-label="Notes per second">
              {{ t.measured.notesPerSecond.toFixed(1) }}
            </td>
            <td><StepWord :decision="t.measured.decision" /></td>
          </template>
          <td v-else colspan="5" class="quiet">
            {{ t.state === 'failed' ? 'could not be measured' : 'waits to be measured' }}
          </td>
          <td class="quiet">
            {{ t.aside ? asideNames[t.aside] : `${madeWith[t.source]}${t.demo ? ', demo' : ''}` }}
          </td>
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
.beyond {
  font-weight: 700;
  color: var(--timing);
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
