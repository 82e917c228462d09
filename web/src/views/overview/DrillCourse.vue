<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink } from 'vue-router'

import type { OverviewDrill } from '../../api/client'
import ChartFigure from '../../components/charts/ChartFigure.vue'
import {
  dayAxis,
  dayMonth,
  frameOf,
  lineAcross,
  textOf,
  valueAxis,
  type Look,
} from '../../components/charts/look'
import { backtestWords } from './words'

/** A drill week by week: the rung stood on, what was passed, and how uneven it was. */
const props = defineProps<{ drill: OverviewDrill }>()

const short = (v: number) => String(Number(v.toFixed(1)))
const unit = computed(() => (props.drill.unit === 'bpm' ? 'Tempo, bpm' : 'Notes a second'))
const rows = computed(() =>
  props.drill.points.map((p) => [
    dayMonth(p.begins),
    short(p.speed),
    p.passed === undefined ? '–' : short(p.passed),
    p.spreadPercent.toFixed(1),
    `${p.clean} of ${p.counting}`,
  ]),
)

/** Up to which tens or ones the axis goes. */
const top = props.drill.unit === 'bpm' ? 20 : 1

function option(look: Look) {
  const { points, target, gate } = props.drill
  const bottom = {
    ...valueAxis(look, 'Timing spread, % of the interval'),
    gridIndex: 1,
    min: 0,
    max: (v: { max: number }) => Math.ceil(Math.max(v.max, 1.3 * gate.spreadPercent)),
    splitNumber: 3,
  }
  return {
    ...frameOf(look),
    grid: [
      { left: 44, right: 84, top: 30, height: '46%' },
      { left: 44, right: 84, bottom: 26, height: '22%' },
    ],
    xAxis: [
      { ...dayAxis(look), gridIndex: 0, axisLabel: { show: false } },
      { ...dayAxis(look), gridIndex: 1 },
    ],
    yAxis: [
      {
        ...valueAxis(look, unit.value),
        gridIndex: 0,
        scale: true,
        max: Math.ceil(target / top) * top,
      },
      bottom,
    ],
    series: [
      {
        name: 'Stood on',
        type: 'line' as const,
        step: 'end' as const,
        symbol: 'none',
        lineStyle: { color: look.ink, width: 3 },
        data: points.map((p) => [p.begins, p.speed]),
        markLine: lineAcross(look, target, `target ${short(target)}`),
      },
      {
        name: 'Passed',
        type: 'scatter' as const,
        symbolSize: 9,
        itemStyle: { color: look.sheet, borderColor: look.ink, borderWidth: 2 },
        data: points.filter((p) => p.passed !== undefined).map((p) => [p.begins, p.passed]),
        tooltip: {
          formatter: (item: { data: [string, number] }) =>
            `week of ${dayMonth(item.data[0])}: ${short(item.data[1])} ${props.drill.unit} passed`,
        },
      },
      {
        name: 'Spread',
        type: 'line' as const,
        xAxisIndex: 1,
        yAxisIndex: 1,
        symbolSize: 5,
        lineStyle: { color: look.timing, width: 2 },
        itemStyle: { color: look.timing },
        data: points.map((p) => [p.begins, p.spreadPercent]),
        markLine: {
          ...lineAcross(look, gate.spreadPercent, `gate ${gate.spreadPercent}`),
          label: { ...textOf(look), formatter: `gate ${gate.spreadPercent}` },
        },
      },
    ],
  }
}
</script>

<template>
  <section class="sheet stack">
    <h2>
      <RouterLink :to="`/progress/${drill.id}`">{{ drill.name }}</RouterLink>
    </h2>
    <div v-if="drill.state">
      <p>
        <b>{{ drill.state.finding.text }}</b>
        {{ drill.state.weakest?.text }}
      </p>
      <p v-if="drill.state.finding.kind !== 'reached'">
        The target:
        {{ drill.state.forecast.text.charAt(0).toLowerCase() + drill.state.forecast.text.slice(1) }}
        <span class="quiet">{{ backtestWords(drill.state.backtest) }}</span>
      </p>
    </div>
    <ChartFigure
      v-if="drill.points.length"
      :name="`${unit.split(',')[0]} and evenness, week by week`"
      says="The line is the rung stood on at the end of each week, rings are rungs that were passed. Below, the timing spread and what the gate allows."
      :height="300"
      :option="option"
      :columns="['Week of', unit, 'Passed', 'Spread, %', 'Clean takes']"
      :rows="rows"
    />
    <p v-else class="quiet">Nothing that counts was played in these weeks.</p>
  </section>
</template>
