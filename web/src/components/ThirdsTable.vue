<script setup lang="ts">
import type { Analysis } from '../api/client'
import { signed } from '../draw/words'

/** The first third of a take against the last. */
defineProps<{ endurance: NonNullable<Analysis['endurance']> }>()
</script>

<template>
  <div class="scroll-x" role="region" tabindex="0" aria-label="Start and end">
    <table class="plain">
      <thead>
        <tr>
          <th></th>
          <th class="number">Spread</th>
          <th class="number">Level</th>
          <th class="number">Right notes</th>
          <th class="number">Tempo</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="[name, third] in [
            ['First third', endurance.first],
            ['Last third', endurance.last],
          ] as const"
          :key="name"
        >
          <th scope="row">{{ name }}</th>
          <td class="number figures">
            {{
              third.spreadMs
                ? `${third.spreadMs.value.toFixed(1)} ± ${third.spreadMs.plusMinus.toFixed(0)} ms`
                : '–'
            }}
          </td>
          <td class="number figures">
            {{ third.levelDb ? `${signed(third.levelDb.value, 1)} dB` : '–' }}
          </td>
          <td class="number figures">{{ third.rightPercent.toFixed(0) }} %</td>
          <td class="number figures">{{ third.bpm.toFixed(1) }} bpm</td>
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
  white-space: nowrap;
  border-bottom: var(--edge);
  vertical-align: top;
}
tbody tr:last-child th {
  border-bottom: 0;
}
</style>
