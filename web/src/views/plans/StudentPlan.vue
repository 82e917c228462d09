<script setup lang="ts">
import { ElButton } from 'element-plus'
import { ref } from 'vue'

import { answer, client } from '../../api/client'
import ConflictNote from '../../components/ConflictNote.vue'
import { undoable } from '../../components/undo'
import { useStudent } from '../students/student'
import CalendarDialog from './CalendarDialog.vue'
import GoalList from './GoalList.vue'
import { usePlan } from './planned'
import PlanBoard from './PlanBoard.vue'
import SettingsForm from './PlanSettings.vue'
import RuleList from './RuleList.vue'
import SpreadDialog from './SpreadDialog.vue'

/** A student's weeks, laid out by rules and changed by hand. */
const { pupil, isAway } = useStudent()
const id = pupil.value.member.person.id
const name = pupil.value.member.person.name
const params = { path: { studentId: id } }
const spreading = ref(false)
const calendar = ref(false)
const { saved, settings, plan, past, busy, problem, changed, isNew, ...of } = usePlan(id)
const { attempt, load, set, board, undo, keep, settle } = of
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
        <p data-test="plan-state" :data-of="isNew ? 'new' : 'kept'" class="roomy">
          <template v-if="isNew">Not kept yet: {{ name }} sees it once it is.</template>
          <template v-else-if="saved.author">Kept by {{ saved.author }}.</template>
          <span v-for="text in plan.said" :key="text" class="said">{{ text }}</span>
          <span v-for="l in plan.lower" :key="l.drill" class="said"
            >{{ l.name }}: {{ l.reason }}</span
          >
        </p>
        <el-button data-test="undo" :disabled="!past.length" @click="undo">Undo</el-button>
        <el-button v-if="!isNew" @click="calendar = true">Calendar</el-button>
        <el-button v-if="!isNew" @click="spreading = true">Give to others</el-button>
        <el-button v-if="!isNew" @click="takeAway">Take away</el-button>
        <el-button
          data-test="keep-plan"
          type="primary"
          :disabled="busy || isAway || (!changed && !isNew)"
          @click="keep()"
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
        <summary data-test="rules">The rules</summary>
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
