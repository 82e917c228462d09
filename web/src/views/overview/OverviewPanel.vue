<script setup lang="ts">
import { ElOption, ElSelect } from 'element-plus'
import { onMounted, ref, watch } from 'vue'
import { RouterLink } from 'vue-router'

import { answer, client, type HandRecord, type Overview } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { handOf } from '../../api/hand'
import ProblemNote from '../../components/ProblemNote.vue'
import DrillCourse from './DrillCourse.vue'
import EvennessCourse from './EvennessCourse.vue'
import PaperCourse from './PaperCourse.vue'
import PracticeCourse from './PracticeCourse.vue'
import ThenAndNow from './ThenAndNow.vue'

/** How it went with a student over weeks: in words first, then drawn. */
const props = defineProps<{ studentId: string }>()
const overview = ref<Overview>()
const hand = ref<HandRecord>()
const weeks = ref(26)
const { problem, attempt } = useAttempt()
const load = () =>
  attempt(async () => {
    const path = { studentId: props.studentId }
    overview.value = await answer(
      client.GET('/students/{studentId}/overview', {
        params: { path, query: { weeks: weeks.value } },
      }),
    )
  })
onMounted(() =>
  Promise.all([load(), attempt(async () => (hand.value = await handOf(props.studentId)))]),
)
watch(weeks, load)
</script>

<template>
  <div class="stack">
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="overview">
      <section class="sheet row said">
        <ul class="grow">
          <li v-for="text in overview.said" :key="text">{{ text }}</li>
          <li v-if="!overview.said.length" class="quiet">
            Nothing has been played yet. After the first takes it is said here how it goes.
          </li>
        </ul>
        <p class="small links">
          <RouterLink data-test="report" :to="`/report/${studentId}`">Report</RouterLink>
          <a :href="`/api/students/${studentId}/practice.csv`" download>Practice log, CSV</a>
          <a :href="`/api/students/${studentId}/takes.csv`" download>Takes, CSV</a>
        </p>
        <el-select v-model="weeks" class="weeks" aria-label="How far back">
          <el-option :value="8" label="8 weeks" />
          <el-option :value="26" label="26 weeks" />
          <el-option :value="52" label="a year" />
          <el-option :value="104" label="two years" />
        </el-select>
      </section>
      <div class="parts">
        <DrillCourse v-for="d in overview.drills" :key="d.id" :drill="d" />
        <ThenAndNow :groups="overview.groups" />
        <EvennessCourse :groups="overview.groups" :gate="overview.drills[0]?.gate.spreadPercent" />
        <PracticeCourse :overview="overview" :hand="hand" />
        <PaperCourse :student="studentId" />
      </div>
    </template>
  </div>
</template>

<style scoped>
.said {
  align-items: start;
}
ul {
  flex: 1 1 300px;
  list-style: none;
  padding: 0;
}
li:first-child {
  font-weight: 700;
}
.links {
  display: flex;
  gap: var(--s3);
}
.weeks {
  width: 130px;
}
/* Columns, which stay full whatever there is of a student. */
.parts {
  columns: 2 460px;
  column-gap: var(--s4);
}
.parts > :deep(*) {
  break-inside: avoid;
  margin-bottom: var(--s4);
}
</style>
