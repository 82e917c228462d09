<script setup lang="ts">
import { ElButton, ElOption, ElSelect } from 'element-plus'

import type { GoalSaid, PlanExercise, PlanGoal, PlanSettings, Rung } from '../../api/client'
import { rungShort } from '../../draw/words'

/** What is to be reached by when, and whether it can be. */
const settings = defineModel<PlanSettings>({ required: true })
const props = defineProps<{ exercises: PlanExercise[]; said: GoalSaid[] }>()

const exercise = (g: PlanGoal) => props.exercises.find((e) => e.drillId === g.drill)
const rungs = (g: PlanGoal): Rung[] => exercise(g)?.rungs ?? []
const mixed = (g: PlanGoal) => new Set(rungs(g).map((r) => r.notesPerBeat)).size > 1
const keyOf = (r: Rung) => `${r.bpm}-${r.notesPerBeat}`
const saidOf = (g: PlanGoal) =>
  props.said.find((s) => s.drill === g.drill && keyOf(s.rung) === keyOf(g.rung))
function put(goals: PlanGoal[]) {
  settings.value = { ...settings.value, goals }
}
const change = (i: number, to: Partial<PlanGoal>) =>
  put(settings.value.goals.map((g, j) => (j === i ? { ...g, ...to } : g)))
function choose(i: number, drill: string) {
  const target = props.exercises.find((e) => e.drillId === drill)?.rungs?.at(-1)
  change(i, { drill, ...(target ? { rung: target } : {}) })
}
function add() {
  const drill = settings.value.drills[0]
  const target = props.exercises.find((e) => e.drillId === drill)?.rungs?.at(-1)
  if (!drill || !target) return
  const by = new Date(Date.parse(settings.value.begins) + settings.value.weeks * 7 * 86_400_000)
  put([...settings.value.goals, { drill, rung: target, by: by.toISOString() }])
}
const chosen = () => props.exercises.filter((e) => settings.value.drills.includes(e.drillId))
</script>

<template>
  <div class="goals">
    <div v-for="(g, i) in settings.goals" :key="i" class="goal">
      <div class="row">
        <el-select
          class="grow"
          :model-value="g.drill"
          aria-label="Drill"
          @update:model-value="(d: string) => choose(i, d)"
        >
          <el-option v-for="e in chosen()" :key="e.drillId" :value="e.drillId" :label="e.name" />
        </el-select>
        <el-select
          class="rung"
          :model-value="keyOf(g.rung)"
          aria-label="Rung"
          @update:model-value="
            (k: string) => change(i, { rung: rungs(g).find((r) => keyOf(r) === k)! })
          "
        >
          <el-option
            v-for="r in rungs(g)"
            :key="keyOf(r)"
            :value="keyOf(r)"
            :label="rungShort(r, mixed(g))"
          />
        </el-select>
        <input
          class="text"
          type="date"
          aria-label="By"
          :value="g.by.slice(0, 10)"
          @change="
            (e) =>
              (e.target as HTMLInputElement).value &&
              change(i, { by: `${(e.target as HTMLInputElement).value}T00:00:00Z` })
          "
        />
        <button
          type="button"
          class="link small"
          @click="put(settings.goals.filter((_, j) => j !== i))"
        >
          remove
        </button>
      </div>
      <p v-if="saidOf(g)" class="small" :class="{ late: saidOf(g)?.likely === 'tooLate' }">
        {{ saidOf(g)?.text }}
      </p>
    </div>
    <el-button :disabled="!settings.drills.length" @click="add">Add a goal</el-button>
  </div>
</template>

<style scoped>
@import '../bench/form.css';
.goals {
  display: grid;
  gap: var(--s3);
  justify-items: start;
}
.goal {
  width: 100%;
}
.row {
  gap: var(--s2);
}
.rung {
  width: 110px;
}
.late {
  font-weight: 700;
}
</style>
