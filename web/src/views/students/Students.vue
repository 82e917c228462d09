<script setup lang="ts">
import { ElButton } from 'element-plus'
import { onMounted } from 'vue'
import { RouterLink } from 'vue-router'

import { answer, client, type Pupil } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { usePages } from '../../api/pages'
import LadderBar from '../../components/LadderBar.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import StepWord from '../../components/StepWord.vue'
import TakeList from '../../components/TakeList.vue'
import { count, dayOf } from '../../draw/words'
import MeasureAll from './MeasureAll.vue'

const { problem, attempt } = useAttempt()
const pupils = usePages<Pupil>((after) =>
  answer(client.GET('/students', { params: { query: { after, limit: 60 } } })),
)
const takes = usePages((after) =>
  answer(client.GET('/takes', { params: { query: { after, limit: 20 } } })),
)
const students = pupils.items
const latest = takes.items
onMounted(() => attempt(() => Promise.all([pupils.first(), takes.first()])))
</script>

<template>
  <div class="stack">
    <h1>Students</h1>
    <ProblemNote v-if="problem" :problem="problem" />
    <div class="cards">
      <section v-for="p in students" :key="p.person.id" class="sheet">
        <h2>{{ p.person.name }}</h2>
        <p v-if="p.assignments.length === 0" class="quiet">
          Has no drill yet. Assign one from the drills.
        </p>
        <article v-for="a in p.assignments" :key="a.id">
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
    <p v-if="pupils.more.value">
      <el-button @click="attempt(pupils.further)">More students</el-button>
    </p>
    <section v-if="latest.length" class="sheet stack">
      <h2>Latest takes</h2>
      <TakeList :takes="latest" with-drill with-student />
      <p v-if="takes.more.value">
        <el-button @click="attempt(takes.further)">Earlier takes</el-button>
      </p>
      <MeasureAll />
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
