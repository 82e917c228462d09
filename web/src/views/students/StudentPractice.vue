<script setup lang="ts">
import { ElButton } from 'element-plus'
import { onMounted, ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'

import type { SavedRoutine } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { routinesOf } from '../../api/routines'
import LadderBar from '../../components/LadderBar.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import { aboutMinutes } from '../../draw/routinewords'
import { count, dayOf, rungShort } from '../../draw/words'
import HandPanel from './HandPanel.vue'
import { useStudent } from './student'

/** What a student has to practise, and what their hand says of it. */
const { pupil, isAway } = useStudent()
const id = pupil.value.member.person.id
const router = useRouter()
const routines = ref<SavedRoutine[]>([])
const { problem, attempt } = useAttempt()
onMounted(() => attempt(async () => (routines.value = await routinesOf(id))))
</script>

<template>
  <div class="side-by-side">
    <ProblemNote v-if="problem" :problem="problem" />
    <div class="stack">
      <section class="sheet stack">
        <h2>Drills</h2>
        <p v-if="!pupil.assignments.length" class="quiet">
          None yet. Assign one from the <RouterLink to="/drills">drills</RouterLink>.
        </p>
        <article v-for="a in pupil.assignments" :key="a.id">
          <div class="row">
            <RouterLink class="grow" :to="`/progress/${a.id}`">{{ a.drillName }}</RouterLink>
            <b class="figures">{{ rungShort(a.rung, a.climb.mixed) }}</b>
          </div>
          <LadderBar :climb="a.climb" :rung="a.rung" />
          <p class="small quiet">
            {{ count(a.takes, 'take')
            }}<template v-if="a.lastTakeAt">, last {{ dayOf(a.lastTakeAt) }}</template
            ><template v-if="a.last">. {{ a.last.reason }}</template>
          </p>
        </article>
      </section>
    </div>
    <div class="stack">
      <HandPanel :student-id="id" :name="pupil.member.person.name" />
      <section class="sheet stack">
        <div class="row">
          <h2 class="grow">Routines</h2>
          <el-button v-if="!isAway" @click="router.push(`/students/${id}/routines/new`)"
            >New routine</el-button
          >
        </div>
        <p v-if="!routines.length" class="quiet">
          None yet. A routine is what {{ pupil.member.person.name }} practises in one go: drills,
          rests and notes, in order. The stand runs it by itself.
        </p>
        <div v-for="r in routines" :key="r.id" class="row">
          <RouterLink class="grow" :to="`/students/${id}/routines/${r.id}`">{{
            r.routine.name
          }}</RouterLink>
          <span class="small quiet"
            >{{ aboutMinutes(r.seconds) }}, {{ count(r.routine.items.length, 'item') }}</span
          >
        </div>
      </section>
    </div>
  </div>
</template>

<style scoped>
article {
  display: grid;
  gap: var(--s1);
}
</style>
