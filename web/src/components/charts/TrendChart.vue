<script setup lang="ts">
import { computed } from 'vue'
import { useRouter } from 'vue-router'

import type { Rung, Trend } from '../../api/client'
import { dayOf, rungWords } from '../../draw/words'
import ChartFigure from './ChartFigure.vue'
import { frameOf, lineAcross, textOf, valueAxis, type Look } from './look'

/** A drill take by take: its tempo, what was passed so far, and how uneven it was. */
const props = defineProps<{ trend: Trend }>()
const router = useRouter()

// A tempo says how fast it is only where the click is divided alike everywhere.
const mixed = computed(() => props.trend.mixed)
const unit = computed(() => (mixed.value ? 'Notes a second' : 'Tempo, bpm'))
const speed = (r: Rung) => (mixed.value ? (r.bpm * r.notesPerBeat) / 60 : r.bpm)
const short = (v: number) => String(Number(v.toFixed(1)))
const rows = computed(() =>
  props.trend.points
    .map((p) => [
      dayOf(p.at),
      short(speed(p.rung)),
      p.passed ? short(speed(p.passed)) : '–',
      p.spreadPercent.toFixed(1),
    ])
    .toReversed(),
)

function option(look: Look) {
  const { points, target } = props.trend
  // Takes have an hour, which is that of the place where they are looked at.
  const time = {
    type: 'time' as const,
    axisLine: { lineStyle: { color: look.line } },
    axisLabel: {
      ...textOf(look),
      formatter: (v: number) => dayOf(new Date(v).toISOString()),
      hideOverlap: true,
    },
    splitLine: { show: false },
  }
  const fastest = Math.max(...[target, ...points.map((p) => p.rung)].map(speed))
  return {
    ...frameOf(look),
    grid: [
      { left: 52, right: 84, top: 34, height: '44%' },
      { left: 52, right: 84, bottom: 34, height: '22%' },
    ],
    xAxis: [
      { ...time, gridIndex: 0, axisLabel: { show: false } },
      { ...time, gridIndex: 1 },
    ],
    yAxis: [
      {
        ...valueAxis(look, unit.value),
        gridIndex: 0,
        scale: true,
        max: mixed.value ? undefined : Math.ceil((fastest + 4) / 10) * 10,
      },
      {
        ...valueAxis(look, 'Timing spread, % of the interval'),
        gridIndex: 1,
        min: 0,
        splitNumber: 3,
      },
    ],
    series: [
      {
        name: 'Passed',
        type: 'line' as const,
        step: 'end' as const,
        symbol: 'none',
        lineStyle: { color: look.ink, width: 3 },
        data: points.map((p) => [p.at, p.passed ? speed(p.passed) : null]),
        markLine: lineAcross(look, speed(target), `target ${short(speed(target))}`),
      },
      {
        name: 'Practised',
        type: 'scatter' as const,
        symbolSize: 9,
        itemStyle: { color: look.sheet, borderColor: look.ink, borderWidth: 2 },
        data: points.map((p) => [p.at, speed(p.rung)]),
        tooltip: {
          formatter: ({ dataIndex }: { dataIndex: number }) => {
            const p = points[dataIndex]
            if (!p) return ''
            return `${dayOf(p.at)}: ${rungWords(p.rung, mixed.value)}, spread ${p.spreadPercent.toFixed(1)} %`
          },
        },
      },
      {
        name: 'Spread',
        type: 'line' as const,
        xAxisIndex: 1,
        yAxisIndex: 1,
        symbolSize: 7,
        lineStyle: { color: look.timing, width: 2 },
        itemStyle: { color: look.timing },
        data: points.map((p) => [p.at, p.spreadPercent]),
      },
    ],
  }
}

function open({ seriesName, dataIndex }: { seriesName?: string; dataIndex: number }) {
  const point = props.trend.points[dataIndex]
  if (point && seriesName !== 'Passed') void router.push(`/takes/${point.takeId}`)
}
</script>

<template>
  <ChartFigure
    :name="`${unit.split(',')[0]} and evenness, take by take`"
    says="The line is the fastest tempo passed so far, the rings are the takes. Below, how uneven each take was. Click a take to open it."
    :height="380"
    :option="option"
    :columns="['Take of', unit, 'Passed so far', 'Spread, %']"
    :rows="rows"
    @pick="open"
  />
</template>
