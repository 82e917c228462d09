<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { RouterLink } from 'vue-router'

import {
  answer,
  client,
  problemOf,
  type Assignment,
  type Person,
  type Problem,
  type TakeSummary,
} from '../../api/client'
import LadderBar from '../../components/LadderBar.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import StepWord from '../../components/StepWord.vue'
import TakeList from '../../components/TakeList.vue'
import { count, dayOf } from '../../draw/words'

const people = ref<Person[]>([])
const assignments = ref<Assignment[]>([])
const takes = ref<TakeSummary[]>()
const problem = ref<Problem>()
const students = computed(() => people.value.filter((p) => p.role === 'student'))

onMounted(async () => {
  try {
    ;[people.value, assignments.value, takes.value] = await Promise.all([
      answer(client.GET('/people')),
      answer(client.GET('/assignments')),
      answer(client.GET('/takes')),
    ])
  } catch (thrown) {
    problem.value = problemOf(thrown)
  }
})

function of(p: Person): Assignment[] {
  return assignments.value.filter((a) => a.student.id === p.id)
}
</script>

<template>
  <div class="stack">
    <h1>Students</h1>
    <ProblemNote v-if="problem" :problem="problem" />
    <div class="cards">
      <section v-for="p in students" :key="p.id" class="sheet">
        <h2>{{ p.name }}</h2>
        <p v-if="of(p).length === 0" class="quiet">Has no drill yet. Assign one from the drills.</p>
        <article v-for="a in of(p)" :key="a.id">
          <div class="row">
            <RouterLink class="grow" :to="`/progress/${a.id}`">{{ a.drillName }}</RouterLink>
            <b class="figures">{{ a.bpm }} bpm</b>
          </div>
          <LadderBar :ladder="a.ladder" :bpm="a.bpm" />
          <p class="small quiet row">
            <span class="grow">
              {{ count(a.takes, 'take')
              }}<template v-if="a.lastTakeAt">, last {{ dayOf(a.lastTakeAt) }}</template>
            </span>
            <StepWord v-if="a.last" :decision="a.last" />
          </p>
        </article>
      </section>
    </div>
    <section v-if="takes?.length" class="sheet stack">
      <h2>Latest takes</h2>
      <TakeList :takes="takes.slice(0, 20)" with-drill with-student />
    </section>
  </div>
</template>

<style scoped>
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(284px, 100%), 1fr));
  gap: var(--s4);
}
article {
  margin-top: var(--s4);
  display: grid;
  gap: var(--s1);
}
</style>
