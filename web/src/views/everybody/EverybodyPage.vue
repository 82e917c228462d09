<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { RouterLink, useRoute } from 'vue-router'

import { answer, client, type Attack, type Everybody } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import ChartFigure from '../../components/charts/ChartFigure.vue'
import { frameOf, lineAcross, textOf, valueAxis, type Look } from '../../components/charts/look'
import ProblemNote from '../../components/ProblemNote.vue'
import { attackNames, count } from '../../draw/words'

/** A drill over all who play it: where everybody fails, the drill is at fault. */
const id = String(useRoute().params.id)
const params = { path: { drillId: id } }
const everybody = ref<Everybody>()
const name = ref('')
const { problem, attempt } = useAttempt()
onMounted(() =>
  attempt(async () => {
    const [drill, found] = await Promise.all([
      answer(client.GET('/drills/{drillId}', { params })),
      answer(client.GET('/drills/{drillId}/everybody', { params })),
    ])
    name.value = drill.name
    everybody.value = found
  }),
)
const notes = computed(() => everybody.value?.notes ?? [])
const heard = computed(() => everybody.value?.heardMs ?? 0)

function option(look: Look) {
  return {
    ...frameOf(look),
    grid: { left: 44, right: 60, top: 30, bottom: 30 },
    xAxis: {
      type: 'category' as const,
      data: notes.value.map((n) => String(n.index + 1)),
      axisLabel: { ...textOf(look), hideOverlap: true },
      axisLine: { lineStyle: { color: look.line } },
      name: 'note',
      nameTextStyle: textOf(look),
    },
    yAxis: valueAxis(look, 'Late on average, ms'),
    series: [
      {
        name: 'Late',
        type: 'bar' as const,
        data: notes.value.map((n) => ({
          value: Number(n.lateMs.toFixed(1)),
          itemStyle: { color: n.lateMs > heard.value ? look.timing : look.faint },
        })),
        markLine: lineAcross(look, heard.value, 'heard'),
      },
    ],
  }
}
</script>

<template>
  <div class="stack">
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="everybody">
      <div>
        <p class="small"><RouterLink :to="`/drills/${id}`">Bench</RouterLink></p>
        <h1>{{ name }}, with everybody</h1>
      </div>
      <section class="sheet stack">
        <p class="text">
          <b>{{ everybody.text }}</b>
        </p>
        <p v-if="everybody.students.length" class="small quiet">
          The latest take that counts of {{ count(everybody.students.length, 'student') }}:
          {{ everybody.students.join(', ') }}.
        </p>
        <ChartFigure
          v-if="notes.length"
          name="How late each note comes"
          says="The mean over the students, note for note of one pass; above the dashed line it is heard."
          :option="option"
          :columns="[
            'Note',
            'String',
            'Fret',
            'Finger',
            'How',
            'Late, ms',
            'Late with',
            'Not right with',
          ]"
          :rows="
            notes.map((n) => [
              n.index + 1,
              n.string,
              n.fret,
              n.finger,
              attackNames[n.attack as Attack],
              n.lateMs.toFixed(1),
              n.late,
              n.notRight,
            ])
          "
        />
      </section>
    </template>
  </div>
</template>

<style scoped>
.text {
  font-size: var(--t-lead);
}
</style>
