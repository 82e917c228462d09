<script setup lang="ts">
import { computed } from 'vue'

import type { Attack, HandRecord, Overview } from '../../api/client'
import ChartFigure from '../../components/charts/ChartFigure.vue'
import {
  dayAxis,
  dayMonth,
  frameOf,
  textOf,
  valueAxis,
  type Look,
} from '../../components/charts/look'
import { attackNames, count } from '../../draw/words'
import { reportWords } from '../../draw/handwords'
import PracticeDays from './PracticeDays.vue'
import { minutes } from './words'

/** How much was practised, of what, and what it cost the hand. */
const props = defineProps<{ overview: Overview; hand?: HandRecord }>()

const weeks = computed(() => props.overview.weeks)
const attacks = computed(() => {
  const all = new Map<string, number>()
  for (const w of weeks.value)
    for (const a of w.attacks) all.set(a.attack, (all.get(a.attack) ?? 0) + a.seconds)
  return [...all].toSorted((a, b) => b[1] - a[1]).map(([attack]) => attack as Attack)
})
const secondsOf = (w: Overview['weeks'][number]) => w.days.reduce((sum, d) => sum + d.seconds, 0)
const total = computed(() => weeks.value.reduce((sum, w) => sum + secondsOf(w), 0))
const days = computed(() => weeks.value.reduce((sum, w) => sum + w.days.length, 0))
const inMinutes = (w: Overview['weeks'][number], attack: Attack) =>
  (w.attacks.find((a) => a.attack === attack)?.seconds ?? 0) / 60

function byTechnique(look: Look) {
  const shades = [look.ink, look.faint, look.line, look.soft]
  return {
    ...frameOf(look),
    grid: { left: 44, right: 20, top: 30, bottom: 26 },
    xAxis: {
      ...dayAxis(look),
      type: 'category' as const,
      data: weeks.value.map((w) => dayMonth(w.begins)),
      axisLabel: { ...textOf(look), hideOverlap: true },
    },
    yAxis: valueAxis(look, 'Sounding takes, minutes'),
    series: attacks.value.map((attack, i) => ({
      name: attackNames[attack],
      type: 'bar' as const,
      stack: 'all',
      itemStyle: { color: shades[i % shades.length], borderColor: look.ink, borderWidth: 1 },
      data: weeks.value.map((w) => Number(inMinutes(w, attack).toFixed(1))),
    })),
  }
}
const withSpeed = computed(() => weeks.value.filter((w) => w.notesPerSecond !== undefined))
function cleanNotes(look: Look) {
  return {
    ...frameOf(look),
    grid: { left: 44, right: 20, top: 30, bottom: 26 },
    xAxis: dayAxis(look),
    yAxis: { ...valueAxis(look, 'Notes a second'), scale: true },
    series: [
      {
        name: 'Fastest passed',
        type: 'line' as const,
        symbolSize: 7,
        lineStyle: { color: look.ink, width: 2 },
        itemStyle: { color: look.ink },
        data: withSpeed.value.map((w) => [w.begins, Number(w.notesPerSecond!.toFixed(2))]),
      },
    ],
  }
}
const reports = computed(() => (props.hand?.reports ?? []).filter((r) => !r.withdrawnAt))
const efforts = computed(() =>
  reports.value
    .filter((r) => r.report.effort)
    .map((r) => ({ at: r.at, effort: r.report.effort! }))
    .toReversed(),
)
function effort(look: Look) {
  return {
    ...frameOf(look),
    grid: { left: 44, right: 20, top: 30, bottom: 26 },
    xAxis: dayAxis(look),
    yAxis: { ...valueAxis(look, 'Effort, 1 to 10'), min: 0, max: 10 },
    series: [
      {
        name: 'Effort',
        type: 'scatter' as const,
        symbolSize: 9,
        itemStyle: { color: look.ink },
        data: efforts.value.map((e) => [e.at, e.effort]),
      },
    ],
  }
}
</script>

<template>
  <section class="sheet stack">
    <div>
      <h2>Practice</h2>
      <p>
        {{ count(days, 'day') }} in {{ count(weeks.length, 'week') }}, {{ minutes(total) }} of
        takes.
      </p>
    </div>
    <PracticeDays :weeks="weeks" />
    <ChartFigure
      v-if="attacks.length"
      name="Minutes by technique"
      :says="`How long takes sounded in each week, parted by how their notes began: ${attacks.map((a) => attackNames[a]).join(', ')}, from the bottom up.`"
      :height="200"
      :option="byTechnique"
      :columns="['Week of', ...attacks.map((a) => `${attackNames[a]}, min`)]"
      :rows="
        weeks.map((w) => [dayMonth(w.begins), ...attacks.map((a) => inMinutes(w, a).toFixed(1))])
      "
    />
    <ChartFigure
      v-if="withSpeed.length > 1"
      name="Clean notes a second"
      says="The fastest rung passed in each week, over all drills."
      :height="180"
      :option="cleanNotes"
      :columns="['Week of', 'Notes a second']"
      :rows="withSpeed.map((w) => [dayMonth(w.begins), w.notesPerSecond!.toFixed(1)])"
    />
    <ChartFigure
      v-if="efforts.length > 1"
      name="Effort"
      says="What was said after playing: 1 is none at all, 10 the most there is."
      :height="180"
      :option="effort"
      :columns="['Day', 'Effort']"
      :rows="efforts.map((e) => [dayMonth(e.at), e.effort])"
    />
    <div v-if="reports.length">
      <h3>What the hand said</h3>
      <ul>
        <li v-for="r in reports.slice(0, 6)" :key="r.id">
          <span class="quiet">{{ dayMonth(r.at) }}</span> {{ reportWords(r.report) }}
        </li>
      </ul>
    </div>
  </section>
</template>

<style scoped>
h3 {
  font-size: var(--t-body);
}
ul {
  list-style: none;
  padding: 0;
}
</style>
