<script setup lang="ts">
import { computed } from 'vue'

import type { Analysis, Transition } from '../api/client'
import { attackNames, count, signed } from '../draw/words'

/** From which finger to which: how late or early the second one comes. */
const props = defineProps<{ analysis: Analysis }>()

const pairs = computed(() => [...props.analysis.transitions, ...(props.analysis.across ?? [])])
const fingers = computed(() => {
  const used = new Set(pairs.value.flatMap((t) => [t.from, t.to]))
  return [...used].sort()
})
function of(from: number, to: number): Transition[] {
  return pairs.value.filter((t) => t.from === from && t.to === to)
}
function how(t: Transition): string {
  const over = ['', ', next string'][t.strings ?? 0] ?? `, ${t.strings} strings away`
  return attackNames[t.attack] + over
}
function say(t: Transition): string {
  const way = t.meanMs > 0 ? 'late' : 'early'
  const spread = `spread ${t.spreadMs.toFixed(0)} ms, ${count(t.count, 'time')}${t.madeUp ? '; it makes up for the note before' : ''}${t.soft ? '; soft' : ''}`
  return `${how(t)}: ${Math.abs(t.meanMs).toFixed(0)} ms ${way}, give or take ${t.plusMinusMs.toFixed(0)}; ${spread}`
}
const name = (finger: number) => (finger === 0 ? 'open' : String(finger))
</script>

<template>
  <div class="scroll-x" role="region" tabindex="0" aria-label="From finger to finger">
    <table>
      <thead>
        <tr>
          <th class="corner small">from ↓ to →</th>
          <th v-for="to in fingers" :key="to" scope="col">{{ name(to) }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="from in fingers" :key="from">
          <th scope="row">{{ name(from) }}</th>
          <td v-for="to in fingers" :key="to" :class="{ none: of(from, to).length === 0 }">
            <div
              v-for="t in of(from, to)"
              :key="how(t)"
              :class="['step', { fault: t.stands, few: t.plusMinusMs === 0 }]"
              :title="say(t)"
            >
              <b class="figures">{{ t.plusMinusMs === 0 ? '–' : signed(t.meanMs) }}</b>
              <span class="small">{{ how(t) }}, {{ t.count }}×</span>
              <span v-if="t.plusMinusMs > 0" :class="['small', { varies: t.varies }]"
                >varies by {{ t.spreadMs.toFixed(0) }}</span
              >
              <span v-if="t.soft && t.softerDb" class="small soft"
                >{{ t.softerDb.value.toFixed(0) }} dB softer</span
              >
            </div>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
table {
  border-collapse: separate;
  border-spacing: 4px;
}
th {
  font-weight: 700;
  color: var(--ink-2);
  padding: 0 var(--s2);
}
.corner {
  font-weight: 400;
  white-space: nowrap;
}
td {
  min-width: 104px;
  background: var(--sheet-2);
  border-radius: var(--round);
  padding: 0;
  vertical-align: top;
}
td.none {
  background: none;
  border: 1px dashed var(--line);
}
.step {
  padding: var(--s2);
  display: grid;
  line-height: 1.2;
}
.step b {
  font-size: calc(22px * var(--scale, 1));
}
.step span {
  color: var(--ink-2);
}
.step .varies,
.step .soft {
  color: var(--timing);
  font-weight: 700;
}
.fault {
  background: var(--timing-wash);
  border-radius: var(--round);
}
.fault b {
  color: var(--timing);
}
.few b {
  color: var(--ink-3);
}
</style>
