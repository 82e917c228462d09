<script setup lang="ts">
import { ElButton, ElCheckbox, ElDialog } from 'element-plus'
import { computed, ref } from 'vue'

import { answer, client, type Group, type Person } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { newId } from '../../api/ids'
import { putGroup } from '../../api/people'
import ProblemNote from '../../components/ProblemNote.vue'
import TextLine from '../../components/TextLine.vue'
import { undoable } from '../../components/undo'
import { count } from '../../draw/words'

/** The groups of the studio: who is in which. */
const props = defineProps<{ groups: Group[]; students: Person[] }>()
const emit = defineEmits<{ close: []; changed: [groups: Group[]] }>()
const chosen = ref<Group>()
const { problem, attempt } = useAttempt()
const isNew = computed(() => !props.groups.some((g) => g.id === chosen.value?.id))

function open(g?: Group) {
  chosen.value = g
    ? { ...g, students: [...g.students] }
    : { id: newId(), name: '', revision: 0, students: [] }
}
function put(student: string, inside: boolean) {
  const g = chosen.value
  if (!g) return
  g.students = g.students.filter((id) => id !== student)
  if (inside) g.students.push(student)
}
const save = () =>
  attempt(async () => {
    if (!chosen.value) return
    emit('changed', await putGroup(chosen.value))
    chosen.value = undefined
  })
const showNow = () =>
  attempt(async () => {
    const now = await answer(client.GET('/groups'))
    emit('changed', now)
    open(now.find((g) => g.id === chosen.value?.id))
  })
const takeAway = (g: Group) =>
  attempt(async () => {
    await answer(client.DELETE('/groups/{groupId}', { params: { path: { groupId: g.id } } }))
    emit('changed', await answer(client.GET('/groups')))
    undoable(`${g.name} is taken away; its students stay.`, async () =>
      emit('changed', await putGroup({ ...g, revision: 0 })),
    )
  })
</script>

<template>
  <el-dialog :model-value="true" title="Groups" width="560" @close="emit('close')">
    <ProblemNote v-if="problem" :problem="problem">
      <el-button v-if="problem.status === 412" @click="showNow">Show what is there now</el-button>
    </ProblemNote>
    <template v-if="!chosen">
      <p v-if="!groups.length">
        No groups yet. A group shows its students alone on the students’ page, and a drill is
        assigned to all of them at once.
      </p>
      <ul>
        <li v-for="g in groups" :key="g.id">
          <span class="grow"
            ><b>{{ g.name }}</b>
            <span class="quiet">{{ count(g.students.length, 'student') }}</span>
          </span>
          <el-button @click="open(g)">Change</el-button>
          <el-button @click="takeAway(g)">Take away</el-button>
        </li>
      </ul>
    </template>
    <form v-else class="stack" @submit.prevent="save">
      <TextLine v-model="chosen.name" name="Name of the group" :max="100" />
      <fieldset>
        <legend>Who is in it</legend>
        <el-checkbox
          v-for="p in students"
          :key="p.id"
          :model-value="chosen.students.includes(p.id)"
          :label="p.name"
          @update:model-value="(is) => put(p.id, !!is)"
        />
      </fieldset>
    </form>
    <template #footer>
      <template v-if="chosen">
        <el-button @click="chosen = undefined">Leave as it was</el-button>
        <el-button type="primary" :disabled="!chosen.name.trim()" @click="save">{{
          isNew ? 'Make the group' : 'Save'
        }}</el-button>
      </template>
      <template v-else>
        <el-button @click="emit('close')">Close</el-button>
        <el-button type="primary" @click="open()">New group</el-button>
      </template>
    </template>
  </el-dialog>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
}
li {
  display: flex;
  align-items: center;
  gap: var(--s2);
  padding: var(--s2) 0;
  border-bottom: var(--edge);
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
  max-height: 44vh;
  overflow-y: auto;
}
legend {
  font-weight: 600;
  padding-bottom: var(--s1);
}
</style>
