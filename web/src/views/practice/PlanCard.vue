<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'

import { answer, client, type SavedPlan } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { dayMonth } from '../../components/charts/look'
import ProblemNote from '../../components/ProblemNote.vue'
import { count } from '../../draw/words'
import CalendarDialog from '../plans/CalendarDialog.vue'
import { lasts } from '../plans/edits'
import { briefly, happened, lineName, weekdays } from '../plans/words'

/** What the plan has for today, in one press; and for the rest of the week. */
const props = defineProps<{ studentId: string }>()
const emit = defineEmits<{ today: [planned: boolean] }>()
const router = useRouter()
const saved = ref<SavedPlan>()
const calendar = ref(false)
const { problem, attempt } = useAttempt()
onMounted(() =>
  attempt(async () => {
    const params = { path: { studentId: props.studentId } }
    saved.value = await answer(client.GET('/students/{studentId}/plan', { params }))
    emit('today', !!today.value?.lines.length)
  }),
)

const at = computed(() => saved.value?.today.slice(0, 10) ?? '')
const week = computed(() =>
  saved.value?.plan.weeks.find((w) => w.days.some((d) => d.date.slice(0, 10) === at.value)),
)
const today = computed(() => week.value?.days.find((d) => d.date.slice(0, 10) === at.value))
const coming = computed(() =>
  (saved.value?.plan.weeks.flatMap((w) => w.days) ?? []).find(
    (d) => d.date.slice(0, 10) > at.value && d.lines.length,
  ),
)
const state = (i: number) => {
  const d = week.value!.days[i]!
  const { wanted, done, any } = happened(d, saved.value!.played)
  if (!wanted) return any ? 'played' : ''
  if (done) return done < wanted ? `${done} of ${wanted}` : 'done'
  return d.date.slice(0, 10) < at.value ? 'skipped' : `${Math.round(lasts(d) / 60)} min`
}
const doneToday = computed(() => today.value && happened(today.value, saved.value!.played))
</script>

<template>
  <ProblemNote v-if="problem" :problem="problem" />
  <section
    v-if="saved && saved.revision > 0 && (today || coming)"
    data-test="plan"
    class="sheet card"
  >
    <div class="row">
      <div class="grow">
        <p class="small quiet">Your plan</p>
        <h2 v-if="today?.lines.length">
          Today: {{ Math.round(lasts(today) / 60) }} minutes<template v-if="today.clean"
            >, clean tone</template
          >
        </h2>
        <h2 v-else-if="saved.hurts">Rest</h2>
        <h2 v-else>{{ today?.reason || 'Nothing today' }}</h2>
        <p v-if="saved.hurts" class="quiet">
          You have reported pain: the plan is empty until your instructor says so.
        </p>
        <p v-else-if="doneToday?.done" class="quiet">
          {{ doneToday.done }} of {{ count(doneToday.wanted, 'drill') }} played today.
        </p>
        <p v-else-if="!today?.lines.length && coming" class="quiet">
          Next: {{ dayMonth(coming.date) }}, {{ Math.round(lasts(coming) / 60) }} minutes.
        </p>
      </div>
      <el-button
        v-if="today?.lines.length && !saved.hurts"
        data-test="today-on-stand"
        type="primary"
        size="large"
        @click="router.push(`/routines/${at}`)"
        >Put it on the stand</el-button
      >
    </div>
    <ol v-if="today?.lines.length" class="lines">
      <li v-for="(l, i) in today.lines.filter((x) => x.kind !== 'rest')" :key="i">
        <b class="figures">{{ briefly(l.seconds) }}</b> {{ lineName(l)
        }}<template v-if="l.position">, position {{ l.position }}</template>
        <span v-if="l.reason" class="small quiet">{{ l.reason }}</span>
      </li>
    </ol>
    <div
      v-if="week"
      class="week small"
      role="img"
      :aria-label="`This week: ${weekdays.map((n, i) => `${n} ${state(i) || 'rest'}`).join(', ')}`"
    >
      <span
        v-for="(n, i) in weekdays"
        :key="n"
        :class="{ now: week.days[i]?.date.slice(0, 10) === at }"
      >
        <b>{{ n }}</b> {{ state(i) || '–' }}
      </span>
    </div>
    <p class="small">
      <button type="button" class="link" @click="calendar = true">In your calendar</button>
    </p>
    <CalendarDialog v-if="calendar" :student-id="studentId" @close="calendar = false" />
    <p v-for="g in saved.plan.goals" :key="g.name + g.by" class="small">
      <b>By {{ dayMonth(g.by) }}:</b> {{ g.name }} at {{ g.rung.bpm }} bpm. {{ g.text }}
    </p>
  </section>
</template>

<style scoped>
.card {
  display: grid;
  gap: var(--s3);
}
h2 {
  font-size: var(--t-head);
}
.lines {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: var(--s1);
}
.lines b {
  display: inline-block;
  min-width: 4.2em;
}
.week {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s1) var(--s4);
  color: var(--ink-2);
}
.week .now {
  color: var(--ink);
  border-bottom: 3px solid var(--ink);
}
</style>
