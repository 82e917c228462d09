<script setup lang="ts">
import { ElButton, ElCheckbox } from 'element-plus'
import { computed, defineAsyncComponent, onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import {
  answer,
  client,
  type Move,
  type Stand,
  type TakeSummary,
  type Trend,
} from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { usePages } from '../../api/pages'
import LadderBar from '../../components/LadderBar.vue'
import MoveList from '../../components/MoveList.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import SetRungDialog from '../../components/SetRungDialog.vue'
import TakeList from '../../components/TakeList.vue'
import { count, rungWords } from '../../draw/words'
import { person } from '../../session'
import { stepOf } from '../stand/ownTempo'

const TrendChart = defineAsyncComponent(() => import('../../components/charts/TrendChart.vue'))

const id = String(useRoute().params.id)
const router = useRouter()
const stand = ref<Stand>()
const trends = ref<Trend[]>([]) // the earliest part first
const before = ref<string>()
const { problem, attempt } = useAttempt()
const path = { assignmentId: id }
const takes = usePages<TakeSummary>((after) =>
  answer(client.GET('/takes', { params: { query: { ...path, after, limit: 25 } } })),
)
const listed = takes.items
const moves = usePages<Move>((after) =>
  answer(
    client.GET('/assignments/{assignmentId}/moves', {
      params: { path, query: { after, limit: 12 } },
    }),
  ),
)
const setting = ref(false)
/** Asks the student for their hands on video, or no more. */
const ask = (asked: boolean) =>
  attempt(async () => {
    await answer(
      client.PUT('/assignments/{assignmentId}/video', { params: { path }, body: { asked } }),
    )
    await look()
  })
async function look() {
  stand.value = await answer(client.GET('/assignments/{assignmentId}', { params: { path } }))
  await moves.first()
}
const trend = computed<Trend | undefined>(() => {
  const last = trends.value.at(-1)
  return last && { ...last, points: trends.value.flatMap((t) => t.points) }
})
async function draw() {
  const page = await answer(
    client.GET('/assignments/{assignmentId}/progress', {
      params: { path, query: { after: before.value } },
    }),
  )
  trends.value = [page.trend, ...trends.value]
  before.value = page.next
}
onMounted(() =>
  attempt(async () => {
    await Promise.all([look(), draw(), takes.first()])
  }),
)
</script>

<template>
  <div class="stack">
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="stand && trend">
      <div class="row">
        <div class="grow">
          <h1>{{ stand.assignment.drillName }}</h1>
          <p data-test="where-it-stands" class="quiet">
            {{ stand.assignment.student.name }}, {{ count(stand.assignment.takes, 'take') }}, now at
            {{ rungWords(stand.assignment.rung, stand.assignment.climb.mixed) }}
          </p>
        </div>
        <el-button
          v-if="person?.role === 'student'"
          data-test="put-on-stand"
          type="primary"
          size="large"
          @click="router.push(`/stand/${id}`)"
        >
          Put on the stand
        </el-button>
        <template v-else-if="person">
          <el-checkbox
            data-test="ask-video"
            :model-value="stand.assignment.video"
            @change="(on) => ask(on === true)"
            >Ask for the hands on video</el-checkbox
          >
          <el-button data-test="set-rung" @click="setting = true">Set the rung</el-button>
        </template>
      </div>
      <section class="sheet stack">
        <p v-if="stand.assignment.set">
          <b>{{ stand.assignment.set.author }}</b> has set this rung: “{{
            stand.assignment.set.reason
          }}”
        </p>
        <LadderBar :climb="stand.assignment.climb" :rung="stand.assignment.rung" />
        <TrendChart v-if="trend.points.length" :trend="trend" />
        <p v-if="before"><el-button @click="attempt(draw)">Draw what was before</el-button></p>
        <p v-if="!trend.points.length">
          No take yet. After the first one, tempo and evenness are drawn here.
        </p>
      </section>
      <section v-if="moves.items.value.length" class="sheet stack">
        <h2 data-test="moves-of">How it came to this rung</h2>
        <MoveList :moves="moves.items.value" :mixed="stand.assignment.climb.mixed" />
        <p v-if="moves.more.value">
          <el-button @click="attempt(moves.further)">Earlier</el-button>
        </p>
      </section>
      <section v-if="listed.length" class="sheet stack">
        <h2>Takes</h2>
        <TakeList :takes="listed" />
        <p v-if="takes.more.value">
          <el-button @click="attempt(takes.further)">Earlier takes</el-button>
        </p>
      </section>
      <SetRungDialog
        v-if="setting"
        :assignment="stand.assignment"
        :step="stepOf(stand)"
        @close="setting = false"
        @set="attempt(look)"
      />
    </template>
  </div>
</template>
