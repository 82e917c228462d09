<script setup lang="ts">
import { computed } from 'vue'

import type { Analysis } from '../api/client'
import { attackNames, signed } from '../draw/words'

/** Where the time goes: late or early by string, crossing, shift, place, attack and way. */
const props = defineProps<{ analysis: Analysis }>()

type Group = Analysis['groups'][number]
const kinds = ['string', 'crossing', 'shift', 'place', 'attack', 'way'] as const
const titles = {
  string: 'String',
  crossing: 'String change',
  shift: 'Shift of the hand',
  place: 'Note of the cell',
  attack: 'How it starts',
  way: 'Way there and back',
}
const sets = computed(() =>
  kinds
    .map((kind) => ({ kind, groups: props.analysis.groups.filter((g) => g.kind === kind) }))
    .filter((s) => s.groups.length > 1),
)
function name(g: Group): string {
  switch (g.kind) {
    case 'string':
      return `string ${g.number}`
    case 'crossing':
      return ['same string', 'next string', 'skipping one'][g.number] ?? `${g.number} strings away`
    case 'shift':
      return g.number ? 'after a shift' : 'in position'
    case 'place':
      return `note ${g.number}`
    case 'attack':
      return g.attack ? attackNames[g.attack] : ''
    case 'way':
      return g.number ? 'way back' : 'way there'
  }
}
/** 30 ms fill the half. */
const x = (ms: number) => 55 + Math.max(-1, Math.min(1, ms / 30)) * 50
</script>

<template>
  <div class="sets">
    <div v-for="s in sets" :key="s.kind">
      <h3>{{ titles[s.kind] }}</h3>
      <table>
        <tbody>
          <tr v-for="g in s.groups" :key="name(g)" :class="{ fault: g.stands }">
            <th scope="row">{{ name(g) }}</th>
            <td>
              <svg v-if="g.meanMs" width="110" height="18" aria-hidden="true">
                <line class="zero" x1="55" x2="55" y1="0" y2="18" />
                <line
                  class="range"
                  :x1="x(g.meanMs.value - g.meanMs.plusMinus)"
                  :x2="x(g.meanMs.value + g.meanMs.plusMinus)"
                  y1="9"
                  y2="9"
                />
                <circle :cx="x(g.meanMs.value)" cy="9" r="5" />
              </svg>
            </td>
            <td class="number figures">
              <template v-if="g.meanMs">{{ signed(g.meanMs.value) }} ms</template>
            </td>
            <td v-if="g.kind === 'way'" class="small" :class="{ varies: g.varies }">
              <template v-if="g.spreadMs">varies by {{ g.spreadMs.value.toFixed(0) }} ms</template>
            </td>
            <td class="number figures quiet small">{{ g.count }}×</td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
.sets {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(330px, 100%), 1fr));
  gap: var(--s4) var(--s5);
}
h3 {
  font-size: var(--t-body);
  margin-bottom: var(--s1);
}
table {
  border-collapse: collapse;
  width: 100%;
}
th {
  text-align: left;
  font-weight: 400;
  white-space: nowrap;
  padding: 2px var(--s3) 2px 0;
}
td {
  padding: 2px var(--s1);
}
svg {
  display: block;
}
.varies {
  color: var(--timing);
  font-weight: 700;
}
.number {
  text-align: right;
  white-space: nowrap;
}
.zero {
  stroke: var(--line-2);
}
.range {
  stroke: var(--ink-3);
  stroke-width: 3;
}
circle {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 2;
}
.fault circle {
  fill: var(--timing);
  stroke: var(--timing);
}
.fault .number:not(.quiet) {
  color: var(--timing);
  font-weight: 700;
}
</style>
