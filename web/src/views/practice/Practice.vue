<script setup lang="ts">
import { ElButton } from 'element-plus'
import { onMounted, ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'

import {
  answer,
  client,
  type Assignment,
  type SavedRoutine,
  type TakeSummary,
} from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { everything, usePages } from '../../api/pages'
import { routine, routinesOf, standsOf } from '../../api/routines'
import { fetchAhead } from '../../audio/ahead'
import HandNote from './HandNote.vue'
import PlanCard from './PlanCard.vue'
import RoutineCard from './RoutineCard.vue'
import LadderBar from '../../components/LadderBar.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import TakeList from '../../components/TakeList.vue'
import UnreadList from '../../components/UnreadList.vue'
import UnreadReviews from '../../components/UnreadReviews.vue'
import UnsentList from '../../components/UnsentList.vue'
import { count, dayOf } from '../../draw/words'
import { person } from '../../session'

const router = useRouter()
const assignments = ref<Assignment[]>()
const routines = ref<SavedRoutine[]>([])
/** The plan has something for today, which then comes before any routine. */
const planned = ref(false)
const { problem, attempt } = useAttempt()
const { items, more, first, further } = usePages<TakeSummary>((after) =>
  answer(client.GET('/takes', { params: { query: { after, limit: 25 } } })),
)
onMounted(() =>
  attempt(async () => {
    const given = everything((after) =>
      answer(client.GET('/assignments', { params: { query: { after } } })),
    )
    const me = person.value?.id ?? ''
    ;[assignments.value, routines.value] = await Promise.all([given, routinesOf(me), first()])
    void keepAhead()
  }),
)

/** What is asked for here is kept by the browser, for when there is no line. */
const mostAhead = 12
async function keepAhead() {
  try {
    await fetchAhead()
    await Promise.all(
      (routines.value ?? []).map((r) => Promise.all([routine(r.id), standsOf(r.id)])),
    )
    for (const { id: assignmentId } of (assignments.value ?? []).slice(0, mostAhead))
      await client.GET('/assignments/{assignmentId}', { params: { path: { assignmentId } } })
  } catch {
    // then there is no line, and what is here is here
  }
}
</script>

<template>
  <div class="stack">
    <h1>Practice</h1>
    <ProblemNote v-if="problem" :problem="problem" />
    <HandNote v-if="person" :student-id="person.id" />
    <UnreadReviews />
    <UnreadList />
    <UnsentList />
    <PlanCard v-if="person" :student-id="person.id" @today="(is) => (planned = is)" />
    <RoutineCard v-for="(r, i) in routines" :key="r.id" :saved="r" :today="i === 0 && !planned" />
    <h2 v-if="routines.length && assignments?.length">Drill by drill</h2>
    <div v-if="assignments?.length" class="cards">
      <section
        v-for="a in assignments"
        :key="a.id"
        data-test="drill"
        :data-of="a.drillName"
        class="sheet card"
      >
        <h2>{{ a.drillName }}</h2>
        <p class="tempo">
          <b class="figures">{{ a.rung.bpm }}</b> bpm<template v-if="a.climb.mixed"
            >, {{ count(a.rung.notesPerBeat, 'note') }} a beat</template
          >
        </p>
        <LadderBar :climb="a.climb" :rung="a.rung" />
        <p v-if="a.set" data-test="set-by" :data-of="a.drillName" class="told">
          <b>{{ a.set.author }}</b> has set this: “{{ a.set.reason }}”
        </p>
        <p v-else class="quiet">{{ a.last?.reason ?? 'Not played yet.' }}</p>
        <p class="small quiet">
          {{ count(a.takes, 'take')
          }}<template v-if="a.lastTakeAt">, last {{ dayOf(a.lastTakeAt) }}</template>
        </p>
        <div class="row">
          <el-button
            data-test="put-on-stand"
            type="primary"
            size="large"
            @click="router.push(`/stand/${a.id}`)"
          >
            Put on the stand
          </el-button>
          <RouterLink :to="`/progress/${a.id}`">Progress</RouterLink>
        </div>
      </section>
    </div>
    <div v-else-if="assignments" class="sheet">
      <h2 data-test="no-drills">Nothing to practise yet</h2>
      <p>Your instructor has not given you a drill. It will be here as soon as they do.</p>
    </div>
    <section v-if="items.length" class="sheet stack">
      <h2>Your takes</h2>
      <TakeList :takes="items" with-drill />
      <p v-if="more"><el-button @click="attempt(further)">Earlier takes</el-button></p>
    </section>
  </div>
</template>

<style scoped>
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(380px, 100%), 1fr));
  gap: var(--s4);
}
.card {
  display: grid;
  gap: var(--s2);
  align-content: start;
}
.told {
  border-left: 6px solid var(--ink);
  padding-left: var(--s3);
}
.tempo b {
  font-size: calc(44px * var(--scale, 1));
  line-height: 1;
}
</style>
