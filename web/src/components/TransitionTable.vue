<script setup lang="ts">
import type { Analysis, Transition } from '../api/client'
import { attackNames, signed } from '../draw/words'

const props = defineProps<{ analysis: Analysis }>()

function late(t: Transition): boolean {
  return Math.abs(t.meanMs) > props.analysis.timing.audibleMs
}
/** A bar's length in px for a mean in ms; 40 ms fill the half. */
function bar(ms: number): number {
  return Math.min(1, Math.abs(ms) / 40) * 56
}
</script>

<template>
  <div class="scroll-x" role="region" tabindex="0" aria-label="Transitions">
    <table class="plain">
      <thead>
        <tr>
          <th>Fingers</th>
          <th>How</th>
          <th class="number">Times</th>
          <th>Comes early or late</th>
          <th class="number">Spread</th>
          <th class="number">Level</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="t in analysis.transitions" :key="`${t.from}${t.to}${t.attack}`">
          <td class="pair figures">{{ t.from }}→{{ t.to }}</td>
          <td>{{ attackNames[t.attack] }}</td>
          <td class="number figures">{{ t.count }}</td>
          <td :class="['mean', { late: late(t) }]">
            <svg width="120" height="16" aria-hidden="true">
              <line x1="60" x2="60" y1="0" y2="16" />
              <rect
                :x="t.meanMs < 0 ? 60 - bar(t.meanMs) : 60"
                y="4"
                :width="bar(t.meanMs)"
                height="8"
              />
            </svg>
            <span class="figures">{{ signed(t.meanMs) }} ms</span>
          </td>
          <td class="number figures">{{ t.spreadMs.toFixed(0) }} ms</td>
          <td class="number figures">{{ signed(t.levelDb, 1) }} dB</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.plain td {
  padding-block: var(--s2);
}
.pair {
  font-weight: 700;
  font-size: var(--t-lead);
  white-space: nowrap;
}
.mean {
  white-space: nowrap;
}
.mean svg {
  vertical-align: -3px;
  margin-right: var(--s2);
}
line {
  stroke: var(--line-2);
}
rect {
  fill: var(--ink-3);
}
.late rect {
  fill: var(--timing);
}
</style>
