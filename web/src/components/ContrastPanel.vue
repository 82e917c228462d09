<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'

import { useAttempt } from '../api/attempt'
import { answer, client, type Contrast, type MeasuredTake, type TakeSummary } from '../api/client'
import { contrastRows } from '../draw/noterows'
import { momentOf, signed } from '../draw/words'
import NoteRows from './NoteRows.vue'
import ProblemNote from './ProblemNote.vue'

/** This take beside another of the same notes. */
const props = defineProps<{ take: MeasuredTake }>()
const others = ref<TakeSummary[]>([])
const chosen = ref('')
const contrast = ref<Contrast>()
const { problem, attempt } = useAttempt()

onMounted(() =>
  attempt(async () => {
    const here = props.take.summary
    // The latest of this drill, then the latest of all: what one would compare with.
    const [own, all] = await Promise.all([
      answer(client.GET('/takes', { params: { query: { assignmentId: here.assignmentId } } })),
      answer(client.GET('/takes', { params: { query: { studentId: here.student.id } } })),
    ])
    const byId = new Map([...own.items, ...all.items].map((t) => [t.id, t]))
    others.value = [...byId.values()]
      .filter((t) => t.id !== here.id && t.measured)
      .sort(
        (a, b) =>
          Number(b.assignmentId === here.assignmentId) -
          Number(a.assignmentId === here.assignmentId),
      )
  }),
)

const compare = () =>
  attempt(async () => {
    contrast.value = undefined
    if (!chosen.value) return
    contrast.value = await answer(
      client.GET('/takes/{takeId}/contrast/{otherId}', {
        params: { path: { takeId: props.take.summary.id, otherId: chosen.value } },
      }),
    )
  })

const names = {
  spreadMs: ['Timing spread', 'ms', 1],
  spreadPercent: ['Timing spread, of the interval', '%', 1],
  levelSpreadDb: ['Level spread', 'dB', 1],
  rightPercent: ['Right notes', '%', 0],
  bpm: ['Tempo held', 'bpm', 1],
  soundingPercent: ['Sounding', '%', 0],
} as const
function verdict(d: { sure: boolean; better: boolean }): string {
  if (!d.sure) return 'no sure difference'
  return d.better ? 'better' : 'worse'
}
const rows = computed(() =>
  contrast.value ? contrastRows(props.take.chart, props.take.analysis, contrast.value) : [],
)
/** Figures and finger pairs as rows of the same kind. */
const tables = computed(() => {
  const figures = (contrast.value?.differences ?? []).map((d) => {
    const [name, unit, digits] = names[d.about]
    const say = (value: number) => `${value.toFixed(digits)} ${unit}`
    return {
      name,
      before: say(d.before),
      after: say(d.after),
      sure: d.sure,
      verdict: d.about === 'bpm' ? '' : verdict(d),
    }
  })
  const fingers = (contrast.value?.transitions ?? []).map((t) => ({
    name: `${t.from}→${t.to}`,
    before: `${signed(t.before)} ms`,
    after: `${signed(t.after)} ms`,
    sure: t.sure,
    verdict: verdict(t),
  }))
  return [
    { title: 'Figure', rows: figures },
    { title: 'Fingers', rows: fingers },
  ].filter((t) => t.rows.length > 0)
})
</script>

<template>
  <div class="stack">
    <label class="row">
      <span>Set beside</span>
      <select v-model="chosen" @change="compare">
        <option value="">choose a take</option>
        <option v-for="t in others" :key="t.id" :value="t.id">
          {{ t.drillName }}, {{ momentOf(t.recordedAt) }}, {{ t.rung.bpm }} bpm
        </option>
      </select>
    </label>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="contrast" class="small quiet">
      Each note of the drill, on the mean of the passes: up is early or loud, down late or soft.
      Coloured where it is heard.
    </p>
    <NoteRows v-if="contrast" :chart="take.chart" :rows="rows" label="Both takes, note for note" />
    <div v-if="contrast" data-test="contrast" class="tables">
      <table v-for="t in tables" :key="t.title" class="plain">
        <thead>
          <tr>
            <th>{{ t.title }}</th>
            <th class="number">Earlier</th>
            <th class="number">Later</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(r, i) in t.rows" :key="i">
            <td class="figures">{{ r.name }}</td>
            <td class="number figures">{{ r.before }}</td>
            <td class="number figures">{{ r.after }}</td>
            <td :class="{ quiet: !r.sure }">{{ r.verdict }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
select {
  flex: 1 1 200px;
  min-width: 0;
  max-width: 560px;
  font-size: var(--t-body);
  padding: 8px;
  border: 1px solid var(--line-2);
  border-radius: var(--round);
  background: var(--sheet);
  color: var(--ink);
}
.tables {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(380px, 100%), 1fr));
  gap: var(--s4) var(--s5);
  align-items: start;
}
.plain td {
  padding-block: var(--s2);
}
@media (max-width: 480px) {
  .plain :is(th, td) {
    padding-inline: var(--s1);
    font-size: var(--t-small);
  }
}
</style>
