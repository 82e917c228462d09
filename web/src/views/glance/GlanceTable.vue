<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { nextTick, ref, watch } from 'vue'
import { RouterLink, useRouter } from 'vue-router'

import type { GlanceDrill, GlanceOrder, GlanceStudent, Need } from '../../api/client'
import { rungShort, signed } from '../../draw/words'
import { inDialog } from '../../goto'
import { arrows, kindOf, kindWords, lastDays } from './glance'
import DayDots from './DayDots.vue'

/** One row a student: what to look at first, and what it rests on. */
const props = defineProps<{ students: GlanceStudent[]; today: string; order: GlanceOrder }>()
const emit = defineEmits<{ order: [by: GlanceOrder]; end: [] }>()
const router = useRouter()
const at = ref(-1)
const table = ref<HTMLTableElement>()

const columns: { by: GlanceOrder; text: string; explained: string }[] = [
  { by: 'name', text: 'Student', explained: 'By name' },
  { by: 'need', text: 'Look at', explained: 'Who needs help first' },
  { by: 'days', text: 'Last 14 days', explained: 'Who played on the fewest days first' },
]
/** Who is looked at stays so while more come below. */
watch(
  () => props.students[0]?.person.id,
  () => (at.value = -1),
)

async function go(to: number) {
  if (to >= props.students.length) emit('end')
  at.value = Math.min(props.students.length - 1, Math.max(0, to))
  await nextTick()
  table.value?.querySelectorAll<HTMLElement>('tbody > tr.first')[at.value]?.focus()
}
function showsTake(s: GlanceStudent): string | undefined {
  const about = s.drills[Math.max(0, s.needs[0]?.drill ?? 0)]
  return about?.showsTake ?? s.drills.find((d) => d.showsTake)?.showsTake
}
useEventListener('keydown', (e) => {
  const typing = e.target instanceof HTMLInputElement || e.target instanceof HTMLTextAreaElement
  if (typing || e.ctrlKey || e.metaKey || e.altKey || inDialog()) return
  const student = props.students[at.value]
  const take = student && showsTake(student)
  const to = (page: string) => void router.push(`/students/${student!.person.id}${page}`)
  if (e.key === 'ArrowDown') void go(at.value + 1)
  else if (e.key === 'ArrowUp') void go(at.value - 1)
  else if (!student) return
  else if (e.key === 'Enter' && e.target instanceof HTMLTableRowElement) to('')
  else if (e.key.toLowerCase() === 't' && take) void router.push(`/takes/${take}`)
  else if (e.key.toLowerCase() === 'l') to('/lesson')
  else if (e.key.toLowerCase() === 'p') to('/plan')
  else if (e.key.toLowerCase() === 'r') void router.push(`/report/${student.person.id}`)
  else return
  e.preventDefault()
})
/** What the drill beside it says already. */
const saidByDrill = (need: Need) =>
  need.why === 'slipping' || need.why === 'stuck' || need.why === 'uneven'
/** Rows of a student: one for each drill, one at least. */
const lines = (s: GlanceStudent): (GlanceDrill | undefined)[] =>
  s.drills.length ? s.drills : [undefined]
</script>

<template>
  <div
    data-test="glance"
    class="scroll-x"
    role="region"
    tabindex="-1"
    aria-label="Students at a glance"
  >
    <table ref="table" class="plain">
      <thead>
        <tr>
          <th v-for="c in columns" :key="c.by" :aria-sort="order === c.by ? 'ascending' : 'none'">
            <button type="button" class="link" :title="c.explained" @click="emit('order', c.by)">
              {{ c.text }}<span v-if="order === c.by" aria-hidden="true"> ▾</span>
            </button>
          </th>
          <th>Drill, and where it stands</th>
          <th class="number" :aria-sort="order === 'gate' ? 'descending' : 'none'">
            <button
              type="button"
              class="link"
              title="Timing spread of the last takes that count, in % of what the gate allows. Above 100 no rung is won. The most uneven first"
              @click="emit('order', 'gate')"
            >
              Spread,<br />% of gate<span v-if="order === 'gate'" aria-hidden="true"> ▾</span>
            </button>
          </th>
          <th class="number" :aria-sort="order === 'pair' ? 'descending' : 'none'">
            <button
              type="button"
              class="link"
              title="The finger pair that comes latest over the takes of the last four weeks, surely and so that it is heard; by how many ms. The latest first"
              @click="emit('order', 'pair')"
            >
              Weakest pair,<br />ms late<span v-if="order === 'pair'" aria-hidden="true"> ▾</span>
            </button>
          </th>
        </tr>
      </thead>
      <tbody v-for="(s, i) in students" :key="s.person.id" :class="{ at: at === i }">
        <tr
          v-for="(d, n) in lines(s)"
          :key="n"
          :class="{ first: n === 0, last: n === lines(s).length - 1 }"
          :tabindex="n === 0 ? 0 : undefined"
          :aria-label="n === 0 ? s.person.name : undefined"
          @focus="at = i"
        >
          <template v-if="n === 0">
            <td class="name" :rowspan="lines(s).length">
              <RouterLink
                data-test="student"
                :data-of="s.person.name"
                :to="`/students/${s.person.id}`"
                >{{ s.person.name }}</RouterLink
              >
              <RouterLink v-if="s.drills.some((d) => d.waits)" class="small waits" to="/review"
                >to review</RouterLink
              >
            </td>
            <td class="why" :rowspan="lines(s).length">
              <template v-if="s.needs[0]">
                <b>{{ kindWords[kindOf(s)] }}</b>
                <span v-if="!saidByDrill(s.needs[0])" class="small">{{ s.needs[0].text }}</span>
                <RouterLink v-if="showsTake(s)" class="small" :to="`/takes/${showsTake(s)}`"
                  >take that shows it</RouterLink
                >
              </template>
              <span v-else class="quiet">–</span>
            </td>
            <td class="days" :rowspan="lines(s).length">
              <DayDots :days="lastDays(s, today)" />
              <span v-for="text in s.due" :key="text" class="small">{{ text }}</span>
            </td>
          </template>
          <template v-if="d">
            <td class="drill">
              <RouterLink :to="`/progress/${d.assignmentId}`">{{ d.name }}</RouterLink>
              <span class="stands">
                <i aria-hidden="true">{{ arrows[d.state?.finding.kind ?? 'untouched'] }}</i>
                <b class="figures whole">{{
                  rungShort(d.rung, d.state?.finding.unit === 'notes a second')
                }}</b>
                <span class="small quiet">{{
                  d.state?.finding.text ?? 'Nothing has been played yet.'
                }}</span>
              </span>
            </td>
            <td class="number figures">
              <b v-if="d.state?.ofGate" :class="{ beyond: Math.round(d.state.ofGate) > 100 }">{{
                Math.round(d.state.ofGate)
              }}</b>
              <span v-else class="quiet">–</span>
            </td>
            <td class="number figures">
              <template v-if="d.state?.weakest">
                {{ d.state.weakest.from }}→{{ d.state.weakest.to }}
                <b>+{{ Math.round(d.state.weakest.lateMs) }}</b>
                <span v-if="d.state.weakest.thenMs !== undefined" class="small quiet was"
                  >was {{ signed(d.state.weakest.thenMs) }}</span
                >
              </template>
              <span v-else class="quiet">–</span>
            </td>
          </template>
          <td v-else colspan="3" class="quiet">Has no drill yet.</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.plain th {
  white-space: nowrap;
}
th .link {
  text-decoration-color: var(--line-2);
  text-align: inherit;
  line-height: 1.2;
}
.plain td {
  padding-block: var(--s2);
}
.plain tr:last-child td {
  border-bottom: var(--edge);
}
tr:not(.last) td:not([rowspan]) {
  border-bottom-style: dotted;
}
.name {
  font-weight: 700;
  white-space: nowrap;
}
.waits {
  display: block;
  font-weight: 400;
}
.why {
  min-width: 150px;
  max-width: 260px;
  line-height: 1.3;
}
.days {
  max-width: 200px;
  line-height: 1.3;
}
.days .small {
  display: block;
}
.why > * {
  display: block;
}
.why > a {
  display: inline;
}
.drill {
  min-width: 250px;
  line-height: 1.35;
}
.stands {
  display: flex;
  align-items: baseline;
  flex-wrap: wrap;
  gap: 0 var(--s2);
}
.stands i {
  font-style: normal;
  width: 1em;
  font-weight: 700;
}
.was {
  display: block;
}
.beyond {
  color: var(--timing);
}
.at {
  background: var(--sheet-2);
}
tr.first:focus-visible {
  outline-offset: -2px;
}
/* On a narrow screen each student is a small card. */
@media (width < 760px) {
  thead {
    display: none;
  }
  tbody {
    display: grid;
    padding: var(--s3) 0;
    border-bottom: 2px solid var(--line-2);
  }
  tr {
    display: grid;
    gap: var(--s1);
  }
  .plain td,
  .plain tr:last-child td {
    border: 0;
    padding: 2px 0;
    max-width: none;
    text-align: left;
  }
  td.number::before {
    color: var(--ink-2);
    font-size: var(--t-small);
    content: 'Spread, % of gate ';
  }
  td.number + td.number::before {
    content: 'Weakest pair, ms late ';
  }
}
</style>
