<script setup lang="ts">
import { computed, ref } from 'vue'

import type { OverviewGroup } from '../../api/client'
import ChartFigure from '../../components/charts/ChartFigure.vue'
import {
  dayAxis,
  dayMonth,
  frameOf,
  lineAcross,
  valueAxis,
  type Look,
} from '../../components/charts/look'
import { groupName, kindNames } from './words'

/** How uneven notes that have something in common are, week by week, against the gate. */
const props = defineProps<{ groups: OverviewGroup[]; gate?: number }>()
const kind = ref<OverviewGroup['kind']>('pair')
const most = 5

const offered = computed(() =>
  (Object.keys(kindNames) as OverviewGroup['kind'][]).filter((k) =>
    props.groups.some((g) => g.kind === k && g.weeks.length > 1),
  ),
)
/** The most uneven ones now: more lines than that cannot be told apart. */
const shown = computed(() =>
  props.groups
    .filter((g) => g.kind === kind.value && g.weeks.length > 1)
    .toSorted((a, b) => (b.now?.spreadPercent ?? 0) - (a.now?.spreadPercent ?? 0))
    .slice(0, most),
)
const rows = computed(() =>
  shown.value.flatMap((g) =>
    g.weeks.map((w) => [
      groupName(g),
      dayMonth(w.begins),
      w.spreadPercent.toFixed(1),
      w.lateMs.toFixed(0),
      w.count,
    ]),
  ),
)
/** How each line is drawn, the first in bold. */
const dashes = ['', '8 4', '2 3', '12 3 2 3', '5 5']
const widthOf = (i: number) => (i === 0 ? 3 : 2)

function option(look: Look) {
  return {
    ...frameOf(look),
    grid: { left: 44, right: 76, top: 30, bottom: 26 },
    xAxis: dayAxis(look),
    yAxis: { ...valueAxis(look, 'Timing spread, % of the interval'), min: 0 },
    series: shown.value.map((g, i) => ({
      name: groupName(g),
      type: 'line' as const,
      symbolSize: 5,
      lineStyle: {
        color: i === 0 ? look.ink : look.soft,
        width: widthOf(i),
        type: dashes[i] ? dashes[i].split(' ').map(Number) : ('solid' as const),
      },
      itemStyle: { color: i === 0 ? look.ink : look.soft },
      data: g.weeks.map((w) => [w.begins, w.spreadPercent]),
      ...(i === 0 && props.gate
        ? { markLine: lineAcross(look, props.gate, `gate ${props.gate}`) }
        : {}),
    })),
  }
}
</script>

<template>
  <section v-if="offered.length" class="sheet stack">
    <div class="row">
      <h2 class="grow">Evenness by {{ kindNames[kind] }}</h2>
      <div class="chips" role="group" aria-label="By what">
        <button
          v-for="k in offered"
          :key="k"
          type="button"
          class="chip"
          :aria-pressed="kind === k"
          @click="kind = k"
        >
          {{ kindNames[k] }}
        </button>
      </div>
    </div>
    <ChartFigure
      :name="`Timing spread by ${kindNames[kind]}`"
      :says="`The ${shown.length > 1 ? `${shown.length} most uneven` : 'one'} now, the most uneven in bold. Lower is more even.`"
      :option="option"
      :columns="[kindNames[kind], 'Week of', 'Spread, %', 'Late, ms', 'Notes']"
      :rows="rows"
    />
    <ul class="key small" aria-hidden="true">
      <li v-for="(g, i) in shown" :key="groupName(g)">
        <svg width="34" height="8">
          <line
            x1="0"
            y1="4"
            x2="34"
            y2="4"
            :stroke-width="widthOf(i)"
            :stroke-dasharray="dashes[i]"
          />
        </svg>
        {{ groupName(g) }}
      </li>
    </ul>
  </section>
</template>

<style scoped>
@import '../bench/form.css';
.key {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s1) var(--s4);
  list-style: none;
  padding: 0;
}
.key line {
  stroke: var(--ink-2);
}
.key li:first-child line {
  stroke: var(--ink);
}
</style>
