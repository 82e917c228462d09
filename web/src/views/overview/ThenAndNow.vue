<script setup lang="ts">
import { computed } from 'vue'

import type { OverviewGroup } from '../../api/client'
import { signed } from '../../draw/words'
import { groupName } from './words'

/** Each finger pair in the first weeks and in the last ones. */
const props = defineProps<{ groups: OverviewGroup[] }>()
const pairs = computed(() =>
  props.groups
    .filter((g) => g.kind === 'pair' && g.now)
    .toSorted((a, b) => b.now!.lateMs - a.now!.lateMs),
)
const text = computed(() => props.groups.find((g) => g.text)?.text)
</script>

<template>
  <section v-if="pairs.length" class="sheet stack">
    <div>
      <h2>From finger to finger, then and now</h2>
      <p class="small quiet">The first four of these weeks and the last four; the latest first.</p>
    </div>
    <p v-if="text">
      <b>{{ text }}</b>
    </p>
    <div class="scroll-x" role="region" tabindex="0" aria-label="Finger pairs then and now">
      <table class="plain">
        <thead>
          <tr>
            <th>Pair</th>
            <th class="number">Late then,<br />ms</th>
            <th class="number">now,<br />ms</th>
            <th class="number">Spread then,<br />%</th>
            <th class="number">now,<br />%</th>
            <th class="number">Notes<br />now</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="g in pairs" :key="groupName(g)">
            <td>{{ groupName(g) }}</td>
            <td class="number figures">{{ g.then ? signed(g.then.lateMs) : '–' }}</td>
            <td class="number figures">
              <b :class="{ late: g.late }">{{ signed(g.now!.lateMs) }}</b>
              <span class="small quiet"> ± {{ g.now!.plusMinusMs.toFixed(0) }}</span>
            </td>
            <td class="number figures">{{ g.then ? g.then.spreadPercent.toFixed(1) : '–' }}</td>
            <td class="number figures">{{ g.now!.spreadPercent.toFixed(1) }}</td>
            <td class="number figures">{{ g.now!.count }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.late {
  color: var(--timing);
}
.plain td {
  padding-block: var(--s1);
}
</style>
