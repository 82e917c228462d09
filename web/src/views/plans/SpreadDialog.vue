<script setup lang="ts">
import { ElButton, ElCheckbox, ElDialog, ElMessage } from 'element-plus'
import { onMounted, ref } from 'vue'

import { answer, client, type Group, type Person } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { allGroups, allPeople, teaches } from '../../api/people'
import GroupChips from '../../components/GroupChips.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import { count } from '../../draw/words'

/** Gives a student's plan to others. */
const props = defineProps<{ from: string; name: string }>()
const emit = defineEmits<{ close: [] }>()
const students = ref<Person[]>([])
const groups = ref<Group[]>([])
const chosen = ref(new Set<string>())
const failed = ref<{ name: string; why: string }[]>([])
const { problem, busy, attempt, once } = useAttempt()
onMounted(() =>
  attempt(async () => {
    const [people, all] = await Promise.all([allPeople(), allGroups()])
    students.value = people.filter((p) => !teaches(p) && p.id !== props.from)
    groups.value = all
  }),
)
function put(ids: string[], on: boolean) {
  const next = new Set(chosen.value)
  for (const id of ids)
    if (on) next.add(id)
    else next.delete(id)
  chosen.value = next
}
const theirs = (g: Group) => g.students.filter((id) => id !== props.from)
const whole = (g: Group) => theirs(g).length > 0 && theirs(g).every((id) => chosen.value.has(id))
/** As many as may be asked for at once. */
const atOnce = 25
const give = () =>
  once(async () => {
    const ids = [...chosen.value]
    const given: string[] = []
    const not: { studentId: string; why: string }[] = []
    for (let i = 0; i < ids.length; i += atOnce) {
      const body = { from: props.from, to: ids.slice(i, i + atOnce) }
      const part = await answer(client.POST('/plans/spread', { body }))
      given.push(...part.given)
      not.push(...part.failed)
    }
    failed.value = not.map((f) => ({
      name: students.value.find((p) => p.id === f.studentId)?.name ?? '',
      why: f.why,
    }))
    put(given, false)
    ElMessage({ message: `${count(given.length, 'student has', 'students have')} the plan now.` })
    if (!not.length) emit('close')
  })
</script>

<template>
  <el-dialog
    :model-value="true"
    :title="`Give the plan of ${name} to others`"
    width="560"
    top="6vh"
    @close="emit('close')"
  >
    <div class="stack">
      <ProblemNote v-if="problem" :problem="problem" />
      <p>
        Drills, days, minutes, rules and the days changed by hand. Each plan is laid out for the
        hand and the record of who gets it, in place of the one they have; goals stay their own.
      </p>
      <GroupChips :groups="groups" :whole="whole" @turn="(g) => put(theirs(g), !whole(g))" />
      <p v-for="f in failed" :key="f.name">
        <b>{{ f.name }}</b> could not be given it. {{ f.why }}
      </p>
      <div class="people">
        <el-checkbox
          v-for="p in students"
          :key="p.id"
          :model-value="chosen.has(p.id)"
          :label="p.name"
          @update:model-value="(on) => put([p.id], !!on)"
        />
      </div>
    </div>
    <template #footer>
      <el-button @click="emit('close')">Close</el-button>
      <el-button type="primary" :disabled="!chosen.size || busy" @click="give">{{
        chosen.size ? `Give it to ${count(chosen.size, 'student')}` : 'Choose who gets it'
      }}</el-button>
    </template>
  </el-dialog>
</template>

<style scoped>
@import '../bench/form.css';
.people {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
  max-height: 320px;
  overflow-y: auto;
}
</style>
