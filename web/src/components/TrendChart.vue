<script setup lang="ts">
import { LineChart, ScatterChart } from 'echarts/charts'
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import { computed } from 'vue'
import VChart from 'vue-echarts'
import { useRouter } from 'vue-router'

import type { Rung, Trend } from '../api/client'
import { dayOf, rungWords } from '../draw/words'

use([LineChart, ScatterChart, GridComponent, MarkLineComponent, TooltipComponent, CanvasRenderer])

const props = defineProps<{ trend: Trend }>()
const router = useRouter()

function token(name: string): string {
  return getComputedStyle(document.documentElement).getPropertyValue(name).trim()
}

const option = computed(() => {
  const ink = token('--ink')
  const soft = token('--ink-2')
  const line = token('--line')
  const timing = token('--timing')
  const text = { color: soft, fontFamily: token('--type'), fontSize: 13 }
  const points = props.trend.points
  // A tempo says how fast it is only where the click is divided alike everywhere.
  const { mixed, target } = props.trend
  const speed = (r: Rung) => (mixed ? (r.bpm * r.notesPerBeat) / 60 : r.bpm)
  const speeds = [target, ...points.map((p) => p.rung)].map(speed)
  const axis = { axisLabel: text, nameTextStyle: text, splitLine: { lineStyle: { color: line } } }
  const time = {
    type: 'time' as const,
    axisLine: { lineStyle: { color: line } },
    axisLabel: {
      ...text,
      formatter: (v: number) => dayOf(new Date(v).toISOString()),
      hideOverlap: true,
    },
    splitLine: { show: false },
  }
  const left = { nameGap: 14, nameTextStyle: { ...text, align: 'left' as const } }
  return {
    animation: false,
    textStyle: { fontFamily: token('--type') },
    tooltip: {
      trigger: 'item' as const,
      textStyle: { fontFamily: token('--type'), color: ink },
      backgroundColor: token('--sheet'),
      borderColor: token('--line-2'),
    },
    grid: [
      { left: 52, right: 72, top: 34, height: '44%' },
      { left: 52, right: 72, bottom: 34, height: '22%' },
    ],
    xAxis: [
      { ...time, gridIndex: 0, axisLabel: { show: false } },
      { ...time, gridIndex: 1 },
    ],
    yAxis: [
      {
        ...axis,
        ...left,
        type: 'value' as const,
        gridIndex: 0,
        name: mixed ? 'Notes a second' : 'Tempo, bpm',
        scale: true,
        max: mixed ? undefined : Math.ceil((Math.max(...speeds) + 4) / 10) * 10,
      },
      {
        ...axis,
        ...left,
        type: 'value' as const,
        gridIndex: 1,
        name: 'Timing spread, % of the interval',
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
        lineStyle: { color: ink, width: 3 },
        data: points.map((p) => [p.at, p.passed ? speed(p.passed) : null]),
        markLine: {
          silent: true,
          symbol: 'none',
          lineStyle: { color: soft, type: 'dashed' as const },
          label: { ...text, formatter: `target ${Number(speed(target).toFixed(1))}` },
          data: [{ yAxis: speed(target) }],
        },
      },
      {
        name: 'Practised',
        type: 'scatter' as const,
        symbolSize: 9,
        itemStyle: { color: token('--sheet'), borderColor: ink, borderWidth: 2 },
        data: points.map((p) => [p.at, speed(p.rung)]),
        tooltip: {
          formatter: (item: { dataIndex: number }) => {
            const p = points[item.dataIndex]
            if (!p) return ''
            return `${dayOf(p.at)}: ${rungWords(p.rung, mixed)}, spread ${p.spreadPercent.toFixed(1)} %`
          },
        },
      },
      {
        name: 'Spread',
        type: 'line' as const,
        xAxisIndex: 1,
        yAxisIndex: 1,
        symbolSize: 7,
        lineStyle: { color: timing, width: 2 },
        itemStyle: { color: timing },
        data: points.map((p) => [p.at, p.spreadPercent]),
      },
    ],
  }
})

function open(item: unknown) {
  const { seriesName, dataIndex } = item as { seriesName?: string; dataIndex: number }
  const point = props.trend.points[dataIndex]
  if (point && seriesName !== 'Passed') void router.push(`/takes/${point.takeId}`)
}
</script>

<template>
  <figure>
    <VChart class="chart" :option="option" autoresize @click="open" />
    <figcaption class="small quiet">
      The line is the fastest tempo passed so far, the rings are the takes. Below, how uneven each
      take was. Click a take to open it.
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
.chart {
  height: 380px;
  width: 100%;
}
</style>
