<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, onMounted, ref } from 'vue'

import { answer, client, type Paper } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { teaches } from '../../api/people'
import ChartFigure from '../../components/charts/ChartFigure.vue'
import { dayAxis, frameOf, textOf, valueAxis, type Look } from '../../components/charts/look'
import ProblemNote from '../../components/ProblemNote.vue'
import { undoable } from '../../components/undo'
import { count, dateOf, dayOf } from '../../draw/words'
import { person } from '../../session'

/** What was kept on paper before: told by itself, since nothing of it was measured. */
const props = defineProps<{ student: string }>()
const paper = ref<Paper>()
const { problem, attempt } = useAttempt()
const load = async () => {
  const params = { path: { studentId: props.student } }
  paper.value = await answer(client.GET('/students/{studentId}/paper', { params }))
}
onMounted(() => attempt(load))
const remove = (logId: string) =>
  attempt(async () => {
    await answer(client.DELETE('/paper/{logId}', { params: { path: { logId } } }))
    await load()
    undoable('The log is removed.', async () => {
      await answer(client.POST('/paper/{logId}/restore', { params: { path: { logId } } }))
      await attempt(load)
    })
  })

/** As many lines as can be told apart. */
const drawn = computed(() =>
  (paper.value?.drills ?? []).filter((d) => d.points.length > 1).slice(0, 4),
)
const rows = computed(() =>
  (paper.value?.drills ?? []).map((d) => {
    const [first, last] = [d.points[0], d.points.at(-1)]
    return [
      d.name,
      d.entries,
      d.minutes ? Math.round(d.minutes) : '–',
      first ? `${first.bpm} (${dateOf(first.day)})` : '–',
      last ? `${last.bpm} (${dateOf(last.day)})` : '–',
    ]
  }),
)
const months = new Intl.DateTimeFormat('en-GB', {
  month: 'short',
  year: 'numeric',
  timeZone: 'UTC',
})
const month = (at: number) => months.format(at)
const dashes = ['solid', 'dashed', 'dotted', [12, 4, 2, 4]]
const option = (look: Look) => ({
  ...frameOf(look),
  grid: { left: 44, right: 150, top: 30, bottom: 26 },
  xAxis: { ...dayAxis(look), axisLabel: { ...textOf(look), formatter: month, hideOverlap: true } },
  yAxis: { ...valueAxis(look, 'Tempo, bpm'), scale: true },
  series: drawn.value.map((d, i) => ({
    name: d.name,
    type: 'line' as const,
    symbolSize: 5,
    lineStyle: { color: look.ink, width: 2, type: dashes[i] },
    itemStyle: { color: look.ink },
    endLabel: { ...textOf(look), show: true, formatter: d.name, width: 140, overflow: 'truncate' },
    data: d.points.map((p) => [p.day, p.bpm]),
  })),
})
</script>

<template>
  <ProblemNote v-if="problem" :problem="problem" />
  <section v-if="paper?.drills.length" class="sheet stack">
    <h2>Kept on paper</h2>
    <ChartFigure
      name="Tempo as it was written down"
      says="From a log on paper: nothing of it was measured, so no finding rests on it."
      :height="240"
      :option="option"
      :columns="['Drill', 'Entries', 'Minutes', 'First, bpm', 'Last, bpm']"
      :rows="rows"
    />
    <ul v-if="person && teaches(person)" class="small">
      <li v-for="l in paper.logs" :key="l.id" class="row">
        <span
          >{{ count(l.entries, 'line') }}, brought in {{ dayOf(l.at)
          }}<template v-if="l.author"> by {{ l.author }}</template></span
        >
        <el-button data-test="remove-log" size="small" @click="remove(l.id)">Remove</el-button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
}
</style>
