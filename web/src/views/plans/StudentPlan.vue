<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { ElButton, ElMessage } from 'element-plus'
import { computed, onMounted, ref } from 'vue'

import { answer, client, type Plan, type PlanSettings, type SavedPlan } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import ConflictNote from '../../components/ConflictNote.vue'
import { undoable } from '../../components/undo'
import { useStudent } from '../students/student'
import CalendarDialog from './CalendarDialog.vue'
import GoalList from './GoalList.vue'
import PlanBoard from './PlanBoard.vue'
import SettingsForm from './PlanSettings.vue'
import RuleList from './RuleList.vue'
import SpreadDialog from './SpreadDialog.vue'

/** A student's weeks, laid out by rules and changed by hand. */
const { pupil, isAway } = useStudent()
const id = pupil.value.member.person.id
const name = pupil.value.member.person.name
const params = { path: { studentId: id } }
const saved = ref<SavedPlan>()
const settings = ref<PlanSettings>()
const plan = ref<Plan>()
/** What was there before each change, the latest last. */
const past = ref<{ settings: PlanSettings; plan: Plan }[]>([])
const spreading = ref(false)
const calendar = ref(false)
const busy = ref(false)
const { problem, attempt } = useAttempt()
const changed = computed(
  () =>
    JSON.stringify([settings.value, plan.value]) !==
    JSON.stringify([saved.value?.settings, saved.value?.plan]),
)
const isNew = computed(() => saved.value?.revision === 0)

function show(s: SavedPlan) {
  saved.value = s
  settings.value = s.settings
  plan.value = s.plan
  past.value = []
}
const load = async () => show(await answer(client.GET('/students/{studentId}/plan', { params })))
onMounted(() => attempt(load))

function remember() {
  if (settings.value && plan.value) past.value.push({ settings: settings.value, plan: plan.value })
}
/** By its rules, what was changed by hand staying. An answer that is late is no answer. */
let asked = 0
async function lay() {
  const mine = ++asked
  const body = { settings: settings.value!, plan: plan.value }
  await attempt(async () => {
    const made = await answer(client.POST('/students/{studentId}/plan/made', { params, body }))
    if (mine === asked) plan.value = made
  })
}
const layLater = useDebounceFn(lay, 300)
function set(to: PlanSettings) {
  remember()
  settings.value = to
  void layLater()
}
function byHand(to: Plan) {
  remember()
  plan.value = to
}
/** A day given back to the rules is laid out anew. */
async function board(to: Plan) {
  const gaveBack = (p: Plan) => p.weeks.flatMap((w) => w.days).filter((d) => d.byHand).length
  const fewer = gaveBack(to) < gaveBack(plan.value!)
  byHand(to)
  if (fewer) await lay()
}
function undo() {
  const before = past.value.pop()
  if (!before) return
  asked++
  settings.value = before.settings
  plan.value = before.plan
}

const keep = (revision = saved.value?.revision ?? 0) =>
  attempt(async () => {
    if (busy.value) return
    busy.value = true
    try {
      const body = { settings: settings.value!, plan: plan.value }
      const header = { 'If-Match': revision }
      show(
        await answer(
          client.PUT('/students/{studentId}/plan', { params: { ...params, header }, body }),
        ),
      )
      ElMessage({ message: 'The plan is kept.' })
    } finally {
      busy.value = false
    }
  })
/** Somebody has changed it meanwhile: theirs is shown instead, or one's own is kept. */
async function settle(keepMine: boolean) {
  const mine = { settings: settings.value!, plan: plan.value! }
  await attempt(load)
  if (!keepMine || problem.value) return
  settings.value = mine.settings
  plan.value = mine.plan
  await keep()
}
const takeAway = () =>
  attempt(async () => {
    await answer(client.DELETE('/students/{studentId}/plan', { params }))
    await load()
    undoable(`The plan of ${name} is away.`, async () => {
      await answer(client.POST('/students/{studentId}/plan/restore', { params }))
      await attempt(load)
    })
  })
</script>

<template>
  <div class="stack">
    <ConflictNote v-if="problem" :problem="problem" @settle="settle" />
    <template v-if="saved && settings && plan">
      <div class="row">
        <p class="roomy">
          <template v-if="isNew">Not kept yet: {{ name }} sees it once it is.</template>
          <template v-else-if="saved.author">Kept by {{ saved.author }}.</template>
          <span v-for="text in plan.said" :key="text" class="said">{{ text }}</span>
          <span v-for="l in plan.lower" :key="l.drill" class="said"
            >{{ l.name }}: {{ l.reason }}</span
          >
        </p>
        <el-button :disabled="!past.length" @click="undo">Undo</el-button>
        <el-button v-if="!isNew" @click="calendar = true">Calendar</el-button>
        <el-button v-if="!isNew" @click="spreading = true">Give to others</el-button>
        <el-button v-if="!isNew" @click="takeAway">Take away</el-button>
        <el-button type="primary" :disabled="busy || isAway || (!changed && !isNew)" @click="keep()"
          >Keep the plan</el-button
        >
      </div>
      <div class="side-by-side">
        <section class="sheet">
          <SettingsForm
            :model-value="settings"
            :exercises="saved.exercises"
            @update:model-value="set"
          />
        </section>
        <section class="sheet stack">
          <h2>Goals</h2>
          <GoalList
            :model-value="settings"
            :exercises="saved.exercises"
            :said="plan.goals"
            @update:model-value="set"
          />
        </section>
      </div>
      <details class="sheet">
        <summary>The rules</summary>
        <RuleList :model-value="settings" :rules="saved.rules" @update:model-value="set" />
      </details>
      <PlanBoard
        :plan="plan"
        :today="saved.today"
        :played="saved.played"
        :exercises="saved.exercises"
        :editable="!isAway"
        @change="board"
      />
      <CalendarDialog v-if="calendar" :student-id="id" @close="calendar = false" />
      <SpreadDialog v-if="spreading" :from="id" :name="name" @close="spreading = false" />
    </template>
  </div>
</template>

<style scoped>
.said {
  display: block;
}
summary {
  cursor: pointer;
  font-weight: 700;
}
details[open] summary {
  margin-bottom: var(--s3);
}
</style>
