<script setup lang="ts">
import { ElButton, ElCheckbox, ElDialog, ElMessage } from 'element-plus'
import { computed, onMounted, ref } from 'vue'

import {
  answer,
  client,
  type Assignment,
  type Group,
  type Misfit,
  type Person,
  type SavedDrill,
} from '../api/client'
import { useAttempt } from '../api/attempt'
import { giveBack } from '../api/bin'
import { everything } from '../api/pages'
import { allGroups, allPeople, teaches } from '../api/people'
import { count, rungWords } from '../draw/words'
import GroupChips from './GroupChips.vue'
import ProblemNote from './ProblemNote.vue'
import { undoable } from './undo'

/** Some drills, one most often, are assigned to some students; whose hand or guitar they do not fit, it says. */
const props = defineProps<{ drills: SavedDrill[] }>()
const emit = defineEmits<{ close: []; changed: [] }>()

const students = ref<Person[]>([])
const groups = ref<Group[]>([])
const assignments = ref<Assignment[]>([])
const misfits = ref<Misfit[]>([])
const chosen = ref(new Set<string>())
const { problem, busy, attempt, once } = useAttempt()

const drillIds = computed(() => props.drills.map((d) => d.id))
const title = computed(() =>
  props.drills.length === 1
    ? `Assign “${props.drills[0]?.file.drill.name}”`
    : `Assign ${count(props.drills.length, 'drill')}`,
)
/** Who can still be given something. */
const open = computed(() => students.value.filter((p) => theirs(p).length < props.drills.length))

async function look() {
  const lists = drillIds.value.map((drillId) =>
    everything((after) =>
      answer(client.GET('/assignments', { params: { query: { drillId, after } } })),
    ),
  )
  assignments.value = (await Promise.all(lists)).flat()
}
onMounted(() =>
  attempt(async () => {
    students.value = (await allPeople()).filter((p) => !teaches(p))
    await Promise.all([look(), fit(), allGroups().then((g) => (groups.value = g))])
  }),
)
/** Asks whose hand or guitar does not fit, as many at once as may be asked for. */
async function fit() {
  const found: Misfit[] = []
  for (let i = 0; i < students.value.length; i += 100) {
    const studentIds = students.value.slice(i, i + 100).map((p) => p.id)
    for (let j = 0; j < drillIds.value.length; j += 20) {
      const body = { drillIds: drillIds.value.slice(j, j + 20), studentIds }
      found.push(...(await answer(client.POST('/assignments/fit', { body }))))
    }
  }
  misfits.value = found
}

function theirs(p: Person): Assignment[] {
  return assignments.value.filter((a) => a.student.id === p.id)
}
function stateOf(p: Person): string {
  const has = theirs(p)
  const [a] = has
  if (props.drills.length > 1) return has.length ? `has ${has.length} of them` : ''
  if (!a) return ''
  const version = a.version < a.newest ? `, version ${a.version}` : ''
  return `has it, at ${rungWords(a.rung, a.climb.mixed)}, ${count(a.takes, 'take')}${version}`
}
function misfitOf(p: Person): Misfit[] {
  return misfits.value.filter((m) => m.studentId === p.id)
}
function nameOf(m: Misfit): string {
  if (props.drills.length === 1) return ''
  return `${props.drills.find((d) => d.id === m.drillId)?.file.drill.name}: `
}
function put(p: Person, on: boolean) {
  const next = new Set(chosen.value)
  if (on) next.add(p.id)
  else next.delete(p.id)
  chosen.value = next
}
/** Whether all of a group who can be given something are chosen. */
function whole(g: Group): boolean {
  const of = open.value.filter((p) => g.students.includes(p.id))
  return of.length > 0 && of.every((p) => chosen.value.has(p.id))
}
function putGroup(g: Group) {
  const on = !whole(g)
  for (const p of open.value) if (g.students.includes(p.id)) put(p, on)
}

async function assign() {
  await once(async () => {
    const ids = [...chosen.value]
    const refused: Misfit[] = []
    for (let i = 0; i < ids.length; i += 100) {
      const body = { drillIds: drillIds.value, studentIds: ids.slice(i, i + 100) }
      refused.push(...(await answer(client.POST('/assignments/many', { body }))).misfits)
    }
    chosen.value = new Set()
    await look()
    if (refused.length)
      ElMessage({
        message: `${count(refused.length, 'drill')} cannot be played on a student’s guitar and ${refused.length === 1 ? 'was' : 'were'} not assigned; it is said beside the name.`,
        duration: 9000,
      })
  })
  emit('changed')
}
async function giveNewest(a: Assignment) {
  await attempt(async () => {
    await answer(
      client.POST('/assignments/{assignmentId}/newest', {
        params: { path: { assignmentId: a.id } },
      }),
    )
    await look()
  })
  emit('changed')
}
async function withdraw(p: Person) {
  const gone = theirs(p)
  await attempt(async () => {
    for (const a of gone)
      await answer(
        client.DELETE('/assignments/{assignmentId}', { params: { path: { assignmentId: a.id } } }),
      )
    await look()
  })
  emit('changed')
  if (problem.value) return
  undoable(`Withdrawn from ${p.name}.`, async () => {
    for (const a of gone) await giveBack(a.id)
    await attempt(look)
    emit('changed')
  })
}
</script>

<template>
  <el-dialog
    data-test="assign-dialog"
    :model-value="true"
    :title="title"
    width="620"
    top="6vh"
    @close="emit('close')"
  >
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="!students.length && !problem" class="quiet">
      There are no students yet; add them on the students’ page.
    </p>
    <GroupChips :groups="groups" :whole="whole" @turn="putGroup" />
    <ul>
      <li v-for="p in students" :key="p.id">
        <div class="grow">
          <el-checkbox
            v-if="theirs(p).length < drills.length"
            data-test="assign-to"
            :data-of="p.name"
            :model-value="chosen.has(p.id)"
            :label="p.name"
            @update:model-value="(on) => put(p, !!on)"
          />
          <b v-else>{{ p.name }}</b>
          <p v-if="stateOf(p)" data-test="has-it" class="quiet small">{{ stateOf(p) }}</p>
          <p v-for="m in misfitOf(p)" :key="m.drillId" class="small misfit">
            <b>{{ m.stops ? 'Cannot be played on this guitar' : 'Too wide for this hand' }}.</b>
            {{ nameOf(m) }}{{ m.text }}
          </p>
        </div>
        <template v-for="a in theirs(p)" :key="a.id">
          <el-button
            v-if="drills.length === 1 && a.version < a.newest"
            data-test="give-newest"
            @click="giveNewest(a)"
            >Give version {{ a.newest }}</el-button
          >
        </template>
        <el-button
          v-if="theirs(p).length"
          data-test="withdraw"
          :data-of="p.name"
          @click="withdraw(p)"
          >Withdraw</el-button
        >
      </li>
    </ul>
    <p class="small quiet">
      Taking a drill back keeps the takes made of it and the rung reached: given again, the student
      goes on where they stood.
    </p>
    <template #footer>
      <el-button @click="emit('close')">Close</el-button>
      <el-button
        data-test="assign-now"
        type="primary"
        :disabled="!chosen.size || busy"
        @click="assign"
        >Assign to {{ count(chosen.size, 'student') }}</el-button
      >
    </template>
  </el-dialog>
</template>

<style scoped>
@import '../views/bench/form.css';
ul {
  list-style: none;
  padding: 0;
  margin-bottom: var(--s3);
}
li {
  display: flex;
  align-items: center;
  gap: var(--s3);
  padding: var(--s2) 0;
  border-bottom: var(--edge);
}
.misfit {
  border-left: 4px solid var(--ink);
  padding-left: var(--s2);
}
</style>
