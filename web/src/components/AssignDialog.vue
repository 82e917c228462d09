<script setup lang="ts">
import { ElButton, ElDialog } from 'element-plus'
import { computed, onMounted, ref } from 'vue'

import {
  answer,
  client,
  problemOf,
  type Assignment,
  type Person,
  type Problem,
  type SavedDrill,
} from '../api/client'
import { giveBack } from '../api/bin'
import { everything } from '../api/pages'
import { allPeople } from '../api/people'
import { count } from '../draw/words'
import ProblemNote from './ProblemNote.vue'
import { undoable } from './undo'

const props = defineProps<{ drill: SavedDrill }>()
const emit = defineEmits<{ close: []; changed: [] }>()

const people = ref<Person[]>([])
const assignments = ref<Assignment[]>([])
const problem = ref<Problem>()
const students = computed(() => people.value.filter((p) => p.role === 'student'))

async function attempt(action: () => Promise<unknown>) {
  problem.value = undefined
  try {
    await action()
    assignments.value = await everything((after) =>
      answer(client.GET('/assignments', { params: { query: { drillId: props.drill.id, after } } })),
    )
  } catch (thrown) {
    problem.value = problemOf(thrown)
  }
}
onMounted(() =>
  attempt(async () => {
    people.value = await allPeople()
  }),
)

function assignmentOf(p: Person): Assignment | undefined {
  return assignments.value.find((a) => a.student.id === p.id)
}
/** Whether somebody plays an older version, for takes were made of it. */
function behind(p: Person): boolean {
  const a = assignmentOf(p)
  return !!a && a.version < a.newest
}
async function give(p: Person) {
  await attempt(() =>
    answer(client.POST('/assignments', { body: { drillId: props.drill.id, studentId: p.id } })),
  )
  emit('changed')
}
async function giveNewest(a: Assignment) {
  await attempt(() =>
    answer(
      client.POST('/assignments/{assignmentId}/newest', {
        params: { path: { assignmentId: a.id } },
      }),
    ),
  )
  emit('changed')
}
async function takeBack(a: Assignment) {
  await attempt(() =>
    answer(
      client.DELETE('/assignments/{assignmentId}', { params: { path: { assignmentId: a.id } } }),
    ),
  )
  emit('changed')
  if (problem.value) return
  undoable(`Taken back from ${a.student.name}.`, async () => {
    await attempt(() => giveBack(a.id))
    emit('changed')
  })
}
</script>

<template>
  <el-dialog
    :model-value="true"
    :title="`Assign “${drill.file.drill.name}”`"
    width="520"
    @close="emit('close')"
  >
    <ProblemNote v-if="problem" :problem="problem" />
    <ul>
      <li v-for="p in students" :key="p.id">
        <span class="grow">
          <b>{{ p.name }}</b>
          <span v-if="assignmentOf(p)" class="quiet small">
            has it, at {{ assignmentOf(p)?.bpm }} bpm,
            {{ count(assignmentOf(p)?.takes ?? 0, 'take')
            }}<template v-if="behind(p)">, version {{ assignmentOf(p)?.version }}</template>
          </span>
        </span>
        <el-button v-if="behind(p)" @click="giveNewest(assignmentOf(p)!)"
          >Give version {{ drill.version }}</el-button
        >
        <el-button v-if="assignmentOf(p)" @click="takeBack(assignmentOf(p)!)">Take back</el-button>
        <el-button v-else type="primary" @click="give(p)">Assign</el-button>
      </li>
    </ul>
    <p class="small quiet">
      Taking a drill back keeps the takes made of it and the tempo reached: given again, the student
      goes on where they stood.
    </p>
  </el-dialog>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin-bottom: var(--s3);
}
li {
  display: flex;
  align-items: center;
  gap: var(--s3);
  padding: var(--s3) 0;
  border-bottom: var(--edge);
}
li span span {
  display: block;
}
</style>
