<script setup lang="ts">
import { ElButton } from 'element-plus'
import { RouterLink } from 'vue-router'

import ConflictNote from '../../components/ConflictNote.vue'
import PlanBoard from '../plans/PlanBoard.vue'
import { usePlan } from '../plans/planned'

/** What is left of this week, and the next, of a student's plan: adjusted here and now. */
const props = defineProps<{ student: string; editable: boolean }>()
const { saved, plan, past, busy, problem, changed, isNew, board, undo, keep, settle } = usePlan(
  props.student,
)
</script>

<template>
  <section class="sheet stack">
    <div class="row">
      <h2 class="grow">Until the next lesson</h2>
      <template v-if="plan && !isNew">
        <el-button :disabled="!past.length" @click="undo">Undo</el-button>
        <el-button type="primary" :disabled="busy || !editable || !changed" @click="keep()"
          >Keep the plan</el-button
        >
      </template>
    </div>
    <ConflictNote v-if="problem" :problem="problem" @settle="settle" />
    <p v-if="isNew">
      There is no plan yet.
      <RouterLink :to="`/students/${student}/plan`">Lay one out</RouterLink>
    </p>
    <template v-else-if="saved && plan">
      <PlanBoard
        :plan="plan"
        :today="saved.today"
        :played="saved.played"
        :exercises="saved.exercises"
        :editable="editable"
        :weeks="2"
        @change="board"
      />
      <p class="small">
        <RouterLink :to="`/students/${student}/plan`"
          >The whole plan, its goals and rules</RouterLink
        >
      </p>
    </template>
  </section>
</template>
