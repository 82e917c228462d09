<script setup lang="ts">
import { ElOption, ElSelect } from 'element-plus'
import { computed } from 'vue'

import type { PlanExercise, PlanSettings } from '../../api/client'
import NumberLine from '../bench/NumberLine.vue'
import { weekdays } from './words'

/** From when, how long, on which days, and what. */
const settings = defineModel<PlanSettings>({ required: true })
const props = defineProps<{ exercises: PlanExercise[] }>()

const set = (to: Partial<PlanSettings>) => (settings.value = { ...settings.value, ...to })
function turn(day: number) {
  const days = settings.value.days.includes(day)
    ? settings.value.days.filter((d) => d !== day)
    : [...settings.value.days, day].toSorted()
  set({ days })
}
const sorted = computed(() =>
  props.exercises.toSorted(
    (a, b) => Number(b.given) - Number(a.given) || a.rank - b.rank || a.name.localeCompare(b.name),
  ),
)
const pairs = (e: PlanExercise) => e.pairs.map((p) => `${p[0]}-${p[1]}`).join(', ')
</script>

<template>
  <div class="stack">
    <label class="line">
      <span>Begins</span>
      <input
        class="text"
        type="date"
        :value="settings.begins.slice(0, 10)"
        @change="
          (e) =>
            (e.target as HTMLInputElement).value &&
            set({ begins: `${(e.target as HTMLInputElement).value}T00:00:00Z` })
        "
      />
    </label>
    <NumberLine
      :model-value="settings.weeks"
      name="Weeks"
      :min="1"
      :max="26"
      @update:model-value="(weeks) => set({ weeks })"
    />
    <NumberLine
      data-test="minutes-a-day"
      :model-value="settings.minutesADay"
      name="Minutes a day"
      :min="5"
      :max="240"
      :step="5"
      @update:model-value="(minutesADay) => set({ minutesADay })"
    />
    <div class="line">
      <span>On</span>
      <div class="chips" role="group" aria-label="Days of the week">
        <button
          v-for="(name, i) in weekdays"
          :key="name"
          type="button"
          class="chip"
          :aria-pressed="settings.days.includes(i + 1)"
          @click="turn(i + 1)"
        >
          {{ name }}
        </button>
      </div>
    </div>
    <label class="stack tight">
      <span>Drills</span>
      <el-select
        :model-value="settings.drills"
        multiple
        filterable
        placeholder="Choose what is practised"
        @update:model-value="(drills: string[]) => set({ drills })"
      >
        <el-option v-for="e in sorted" :key="e.drillId" :value="e.drillId" :label="e.name">
          <span class="option"
            ><span>{{ e.name }}</span
            ><span class="small quiet"
              >{{ e.technique }} {{ pairs(e) }}{{ e.given ? '' : ' · not given yet' }}</span
            ></span
          >
        </el-option>
      </el-select>
    </label>
  </div>
</template>

<style scoped>
@import '../bench/form.css';
.stack {
  gap: var(--s3);
}
.tight {
  gap: var(--s1);
}
.option {
  display: flex;
  justify-content: space-between;
  gap: var(--s4);
}
</style>
