<script setup lang="ts">
import { ElButton } from 'element-plus'
import { useRouter } from 'vue-router'

import type { SavedRoutine } from '../../api/client'
import { aboutMinutes } from '../../draw/routinewords'
import RoutinePlan from '../routine/RoutinePlan.vue'

/** A routine to be run: what, how long, in which order, what the teacher wrote; one button. */
defineProps<{ saved: SavedRoutine; today: boolean }>()
const router = useRouter()
</script>

<template>
  <section data-test="routine" class="sheet card" :class="{ today }">
    <div class="row">
      <div class="grow">
        <p v-if="today" class="small quiet">Today</p>
        <h2>{{ saved.routine.name }}</h2>
        <p class="quiet">
          {{ aboutMinutes(saved.seconds)
          }}<template v-if="saved.author"> · by {{ saved.author }}</template>
        </p>
      </div>
      <el-button
        :type="today ? 'primary' : undefined"
        :size="today ? 'large' : undefined"
        :disabled="!saved.drills.length"
        @click="router.push(`/routines/${saved.id}`)"
        >Put it on the stand</el-button
      >
    </div>
    <p v-if="saved.routine.note" class="told">{{ saved.routine.note }}</p>
    <RoutinePlan v-if="today" :saved="saved" />
    <details v-else>
      <summary>What is in it</summary>
      <RoutinePlan :saved="saved" />
    </details>
  </section>
</template>

<style scoped>
.card {
  display: grid;
  gap: var(--s3);
}
.today h2 {
  font-size: var(--t-head);
}
.told {
  border-left: 6px solid var(--ink);
  padding-left: var(--s3);
}
summary {
  cursor: pointer;
}
</style>
