<script setup lang="ts">
import { BarChart, LineChart, ScatterChart } from 'echarts/charts'
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import { computed, ref } from 'vue'
import VChart from 'vue-echarts'

import { lookNow, type Look } from './look'

use([
  BarChart,
  LineChart,
  ScatterChart,
  GridComponent,
  MarkLineComponent,
  TooltipComponent,
  CanvasRenderer,
])

/**
 * A chart with its name, a sentence that says what it shows, and the same numbers as a
 * table for whoever would rather read or hear them.
 */
const props = defineProps<{
  name: string
  says: string
  height?: number
  option: (look: Look) => Record<string, unknown>
  columns: string[]
  rows: (string | number)[][]
}>()
const emit = defineEmits<{ pick: [item: { seriesName?: string; dataIndex: number }] }>()
const asTable = ref(false)
const drawn = computed(() => props.option(lookNow()))
</script>

<template>
  <figure>
    <figcaption class="row">
      <div class="grow">
        <h3>{{ name }}</h3>
        <p class="small quiet">{{ says }}</p>
      </div>
      <button
        data-test="as-table"
        type="button"
        class="link small"
        :aria-pressed="asTable"
        @click="asTable = !asTable"
      >
        {{ asTable ? 'as a chart' : 'as a table' }}
      </button>
    </figcaption>
    <div
      v-if="asTable"
      data-test="chart-table"
      class="scroll-x table"
      role="region"
      tabindex="0"
      :aria-label="name"
    >
      <table class="plain">
        <thead>
          <tr>
            <th v-for="(c, i) in columns" :key="c" :class="{ number: i > 0 }" scope="col">
              {{ c }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(r, y) in rows" :key="y">
            <td v-for="(cell, x) in r" :key="x" :class="{ number: x > 0, figures: x > 0 }">
              {{ cell }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <VChart
      v-else
      class="chart"
      :style="{ height: `${height ?? 240}px` }"
      :option="drawn"
      autoresize
      role="img"
      :aria-label="`${name}. ${says}`"
      @click="(item: unknown) => emit('pick', item as { seriesName?: string; dataIndex: number })"
    />
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  min-width: 0;
}
h3 {
  font-size: var(--t-body);
}
figcaption {
  align-items: start;
}
.chart {
  width: 100%;
}
.table {
  max-height: 300px;
  overflow-y: auto;
}
.plain td,
.plain th {
  padding: var(--s1) var(--s2);
}
</style>
