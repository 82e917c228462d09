<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import { ElButton, ElDialog } from 'element-plus'
import { computed, ref } from 'vue'

import { answer, client, type Group, type Member, type RosterRow } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { fileBody } from '../../api/files'
import { newId } from '../../api/ids'
import { putGroup } from '../../api/people'
import FileButton from '../../components/FileButton.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import { count } from '../../draw/words'

/** Adding students: one, a pasted list, or a table. What each line would add is shown before. */
const props = defineProps<{ groups: Group[] }>()
const emit = defineEmits<{ close: []; added: [people: Member[]] }>()

const text = ref('')
/** A table as it is: in what it is written is found out where it is read. */
const table = ref<File>()
const rows = ref<(RosterRow & { id: string })[]>([])
const { problem, busy, attempt, once } = useAttempt()
const wrong = computed(() => rows.value.filter((r) => r.fault).length)
/** Of a long list the first lines are shown, and those that are wrong. */
const shown = computed(() => rows.value.filter((r, i) => i < 200 || r.fault).slice(0, 400))
const hasMore = computed(() => rows.value.some((r) => r.email || r.group))

/** An answer that is late is no answer: something else has been typed since. */
let asked = 0
const read = () =>
  attempt(async () => {
    const mine = ++asked
    if (!table.value && !text.value.trim()) return (rows.value = [])
    const got = await answer(
      client.POST('/people/read', fileBody(table.value ?? new Blob([text.value]))),
    )
    if (mine !== asked) return
    // A line keeps its id for as long as it is there: added twice, it is one.
    const key = (r: RosterRow) => `${r.line} ${r.name}`
    const ids = new Map(rows.value.map((r) => [key(r), r.id]))
    rows.value = got.rows.map((r) => ({ ...r, id: ids.get(key(r)) ?? newId() }))
  })
watchDebounced(
  text,
  () => {
    table.value = undefined
    return read()
  },
  { debounce: 250 },
)

function picked(file: File) {
  table.value = file
  void read()
}

/** The groups that the lines name, by their names; those that are not there are made. */
async function groupsNamed(): Promise<Map<string, string>> {
  const byName = new Map(props.groups.map((g) => [g.name.toLowerCase(), g.id]))
  for (const { group } of rows.value) {
    const key = group.toLowerCase()
    if (!group || byName.has(key)) continue
    const id = newId()
    await putGroup({ id, name: group, revision: 0, students: [] })
    byName.set(key, id)
  }
  return byName
}

const add = () =>
  once(async () => {
    const groups = await groupsNamed()
    const people = rows.value.map((r) => ({
      id: r.id,
      name: r.name,
      role: 'student' as const,
      email: r.email,
      groups: r.group ? [groups.get(r.group.toLowerCase())!] : [],
    }))
    const added: Member[] = []
    for (let i = 0; i < people.length; i += 200)
      added.push(
        ...(await answer(client.POST('/people', { body: { people: people.slice(i, i + 200) } })))
          .items,
      )
    emit('added', added)
  })
</script>

<template>
  <el-dialog :model-value="true" title="Add students" width="720" top="6vh" @close="emit('close')">
    <div class="stack">
      <ProblemNote v-if="problem" :problem="problem" />
      <div class="field">
        <label for="list">One name a line, or paste from a table: name, e-mail, group</label>
        <textarea
          id="list"
          v-model="text"
          data-test="list"
          rows="6"
          placeholder="Mira Tamsin&#10;Jon Akkert, jon@example.org, Mondays"
        />
        <p class="small quiet">
          E-mail and group may be left out. A first line with heads (name, e-mail, group) says in
          which column what stands.
          <FileButton accept=".csv,.txt,.tsv,text/*" @picked="picked">Choose a CSV file</FileButton
          ><template v-if="table">: {{ table.name }}</template>
        </p>
      </div>
      <div
        v-if="rows.length"
        class="scroll-x preview"
        role="region"
        tabindex="0"
        aria-label="Preview"
      >
        <table class="plain">
          <thead>
            <tr>
              <th class="number">Line</th>
              <th>Name</th>
              <th v-if="hasMore">E-mail</th>
              <th v-if="hasMore">Group</th>
              <th v-if="wrong">To mend</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="r in shown" :key="r.line" :class="{ wrong: r.fault }">
              <td class="number figures">{{ r.line }}</td>
              <td>{{ r.name }}</td>
              <td v-if="hasMore">{{ r.email }}</td>
              <td v-if="hasMore">{{ r.group }}</td>
              <td v-if="wrong">
                <b v-if="r.fault">{{ r.fault }}</b>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="shown.length < rows.length" class="small quiet">
        {{ count(shown.length, 'line') }} of {{ rows.length }} shown.
      </p>
    </div>
    <template #footer>
      <span v-if="wrong" data-test="lines-wrong" class="grow"
        >{{ count(wrong, 'line is', 'lines are') }} to mend before anybody is added.</span
      >
      <el-button @click="emit('close')">Add nobody</el-button>
      <el-button
        data-test="add-now"
        type="primary"
        :disabled="!rows.length || !!wrong || busy"
        @click="add"
        >Add {{ rows.length ? count(rows.length, 'student') : 'students' }}</el-button
      >
    </template>
  </el-dialog>
</template>

<style scoped>
.field {
  display: grid;
  gap: var(--s1);
}
.field > label {
  font-weight: 600;
}
textarea {
  width: 100%;
  font: inherit;
  color: inherit;
  background: var(--sheet);
  border: 1px solid var(--line-2);
  border-radius: var(--round);
  padding: var(--s2) var(--s3);
  resize: vertical;
}
.preview {
  max-height: 38vh;
  overflow-y: auto;
}
.plain td {
  padding-block: var(--s1);
}
.wrong {
  background: var(--sheet-2);
}
</style>
