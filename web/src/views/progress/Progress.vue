<script setup lang="ts">
import { ElButton } from 'element-plus'
import { defineAsyncComponent, onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import {
  answer,
  client,
  problemOf,
  type Problem,
  type Stand,
  type TakeSummary,
  type Trend,
} from '../../api/client'
import LadderBar from '../../components/LadderBar.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import TakeList from '../../components/TakeList.vue'
import { count } from '../../draw/words'
import { person } from '../../session'

const TrendChart = defineAsyncComponent(() => import('../../components/TrendChart.vue'))

const id = String(useRoute().params.id)
const router = useRouter()
const stand = ref<Stand>()
const trend = ref<Trend>()
const takes = ref<TakeSummary[]>([])
const problem = ref<Problem>()

onMounted(async () => {
  const path = { assignmentId: id }
  try {
    ;[stand.value, trend.value, takes.value] = await Promise.all([
      answer(client.GET('/assignments/{assignmentId}', { params: { path } })),
      answer(client.GET('/assignments/{assignmentId}/progress', { params: { path } })),
      answer(client.GET('/takes', { params: { query: path } })),
    ])
  } catch (thrown) {
    problem.value = problemOf(thrown)
  }
})
</script>

<template>
  <div class="stack">
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="stand && trend">
      <div class="row">
        <div class="grow">
          <h1>{{ stand.assignment.drillName }}</h1>
          <p class="quiet">
            {{ stand.assignment.student.name }}, {{ count(takes.length, 'take') }}, now at
            {{ stand.assignment.bpm }} bpm
          </p>
        </div>
        <el-button
          v-if="person?.role === 'student'"
          type="primary"
          size="large"
          @click="router.push(`/stand/${id}`)"
        >
          Put on the stand
        </el-button>
      </div>
      <section class="sheet stack">
        <LadderBar :ladder="stand.assignment.ladder" :bpm="stand.assignment.bpm" />
        <TrendChart v-if="trend.points.length" :trend="trend" />
        <p v-else>No take yet. After the first one, tempo and evenness are drawn here.</p>
      </section>
      <section v-if="takes.length" class="sheet stack">
        <h2>Takes</h2>
        <TakeList :takes="takes" />
      </section>
    </template>
  </div>
</template>
