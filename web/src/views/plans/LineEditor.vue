<script setup lang="ts">
import { ElButton, ElDialog, ElOption, ElSelect } from 'element-plus'
import { computed } from 'vue'

import type { Plan, PlanExercise } from '../../api/client'
import NumberLine from '../bench/NumberLine.vue'
import { changed, lineAt, removed, type Slot } from './edits'
import { lineName } from './words'

/** A line of a plan: how long, where on the neck, and which drill. */
const props = defineProps<{ plan: Plan; at: Slot; exercises: PlanExercise[] }>()
const emit = defineEmits<{ change: [plan: Plan]; close: [] }>()
const line = computed(() => lineAt(props.plan, props.at)!)
const exercise = computed(() => props.exercises.find((e) => e.drillId === line.value.drill))
const set = (to: Parameters<typeof changed>[2]) =>
  emit('change', changed(props.plan, props.at, { ...to, rule: undefined }))
function choose(drill: string) {
  set({ drill, name: props.exercises.find((e) => e.drillId === drill)?.name, reason: undefined })
}
</script>

<template>
  <el-dialog :model-value="true" :title="lineName(line)" width="440" @close="emit('close')">
    <div class="stack">
      <p v-if="line.reason">{{ line.reason }}</p>
      <label v-if="line.kind !== 'rest'" class="stack tight">
        <span>Drill</span>
        <el-select :model-value="line.drill" filterable @update:model-value="choose">
          <el-option v-for="e in exercises" :key="e.drillId" :value="e.drillId" :label="e.name" />
        </el-select>
      </label>
      <NumberLine
        :model-value="line.kind === 'rest' ? line.seconds : line.seconds / 60"
        name="Minutes"
        :unit="line.kind === 'rest' ? 's' : 'min'"
        :min="line.kind === 'rest' ? 5 : 0.5"
        :max="line.kind === 'rest' ? 600 : 60"
        :step="line.kind === 'rest' ? 5 : 0.5"
        @update:model-value="(v) => set({ seconds: Math.round(line.kind === 'rest' ? v : 60 * v) })"
      />
      <NumberLine
        v-if="line.kind !== 'rest' && exercise && exercise.highest > exercise.lowest"
        :model-value="line.position || exercise.lowest"
        name="Position"
        :min="exercise.lowest"
        :max="exercise.highest"
        @update:model-value="(v) => set({ position: v })"
      />
    </div>
    <template #footer>
      <el-button
        @click="
          () => {
            emit('change', removed(plan, at))
            emit('close')
          }
        "
        >Take it out</el-button
      >
      <el-button type="primary" @click="emit('close')">Done</el-button>
    </template>
  </el-dialog>
</template>

<style scoped>
.tight {
  gap: var(--s1);
}
</style>
