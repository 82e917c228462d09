<script setup lang="ts">
import { computed } from 'vue'

import type { MeasuredTake } from '../api/client'

/** The parts of a drill with their figures, each as if it had been recorded alone. */
const props = defineProps<{ take: MeasuredTake }>()

const parts = computed(() => props.take.analysis.parts ?? [])
const fault = (part: number) => props.take.parts?.fault[part] ?? ''
/** What the slurs cost, against the same picked. */
function against(part: (typeof parts.value)[number]): string {
  const spread = part.against?.differences.find((d) => d.about === 'spreadMs')
  if (!part.against || !spread) return ''
  const { after, before, sure, better } = spread
  const word = !sure ? 'no sure difference from' : better ? 'more even than' : 'less even than'
  return `${word} picked (part ${part.against.part + 1}): ${after.toFixed(1)} ms, ${before.toFixed(1)} picked`
}
</script>

<template>
  <div class="scroll-x" role="region" tabindex="0" aria-label="Part by part">
    <table class="plain">
      <thead>
        <tr>
          <th>Part</th>
          <th class="number">Right notes</th>
          <th class="number">Timing spread</th>
          <th class="number">Level spread</th>
          <th class="number">Tempo</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="p in parts" :key="p.part">
          <th scope="row">{{ p.part + 1 }}. {{ p.title }}</th>
          <template v-if="p.played">
            <td class="number figures">{{ p.counts.played }} of {{ p.counts.expected }}</td>
            <td class="number figures">
              {{ p.spreadMs.toFixed(1) }} ms, {{ p.spreadPercent.toFixed(1) }} %
            </td>
            <td class="number figures">{{ p.levelSpreadDb.toFixed(1) }} dB</td>
            <td class="number figures">{{ p.bpm ? `${p.bpm.toFixed(1)} bpm` : '–' }}</td>
          </template>
          <td v-else colspan="4" class="quiet">not played</td>
          <td class="small">
            <b v-if="!fault(p.part)">clean</b>
            <span v-else-if="p.played" class="quiet">{{ fault(p.part) }}</span>
            <span v-if="p.against" class="against">{{ against(p) }}</span>
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
tbody th {
  text-align: left;
  border-bottom: var(--edge);
  vertical-align: top;
  padding-block: var(--s2);
}
tbody tr:last-child th {
  border-bottom: 0;
}
.against {
  display: block;
}
</style>
