<script setup lang="ts">
import { computed } from 'vue'

import type { OverviewWeek } from '../../api/client'
import { dayMonth } from '../../components/charts/look'
import { count } from '../../draw/words'
import { minutes } from './words'

/** Each day of the weeks: the taller its bar, the longer was played. */
const props = defineProps<{ weeks: OverviewWeek[] }>()
const names = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']
const longest = computed(() =>
  Math.max(60, ...props.weeks.flatMap((w) => w.days.map((d) => d.seconds))),
)
function on(w: OverviewWeek, day: number) {
  const at = Date.parse(w.begins) + day * 86_400_000
  return w.days.find((d) => Date.parse(d.date) === at)
}
function say(w: OverviewWeek, day: number): string {
  const d = on(w, day)
  const date = dayMonth(new Date(Date.parse(w.begins) + day * 86_400_000).toISOString())
  return d ? `${date}: ${count(d.takes, 'take')}, ${minutes(d.seconds)}` : `${date}: nothing`
}
/** The first week of each month carries its date; the very first does where there is room. */
const begins = (i: number) =>
  i > 0 && props.weeks[i]?.begins.slice(0, 7) !== props.weeks[i - 1]?.begins.slice(0, 7)
const dated = (i: number) => (i === 0 ? ![1, 2].some(begins) : begins(i))
</script>

<template>
  <div class="scroll-x" role="region" tabindex="0" aria-label="Days with practice">
    <table>
      <thead class="small quiet">
        <tr>
          <td></td>
          <th v-for="(w, i) in weeks" :key="w.begins" scope="col">
            <span v-if="dated(i)">{{ dayMonth(w.begins) }}</span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(name, day) in names" :key="name">
          <th scope="row" class="small quiet">{{ name }}</th>
          <td v-for="w in weeks" :key="w.begins" :title="say(w, day)">
            <i
              :style="{
                width: on(w, day) ? `${4 + 12 * Math.sqrt(on(w, day)!.seconds / longest)}px` : '0',
              }"
            ></i>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
table {
  border-spacing: 0;
}
th {
  font-weight: 400;
  text-align: left;
  padding: 0 var(--s2) 0 0;
}
thead th {
  padding: 0;
  height: 1.4em;
  position: relative;
}
thead span {
  position: absolute;
  top: 0;
  left: 0;
  white-space: nowrap;
}
tbody td {
  width: 20px;
  min-width: 20px;
  height: 18px;
  padding: 0;
  border-bottom: 1px solid var(--line);
  vertical-align: middle;
}
i {
  display: block;
  height: 10px;
  background: var(--ink);
}
</style>
