<script setup lang="ts">
import { ElButton, ElMessage } from 'element-plus'
import { computed, ref } from 'vue'

import {
  answer,
  client,
  type PaperColumn,
  type PaperDates,
  type PaperPreview,
} from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { fileBody } from '../../api/files'
import { newId } from '../../api/ids'
import FileButton from '../../components/FileButton.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import { undoable } from '../../components/undo'
import { count, dateOf } from '../../draw/words'

/** Brings in a log that was kept on paper: what each line would add is shown before. */
const emit = defineEmits<{ done: [] }>()

const words: Record<PaperColumn, string> = {
  day: 'day',
  student: 'student',
  drill: 'drill',
  tempo: 'tempo, bpm',
  notesPerBeat: 'notes a beat',
  minutes: 'minutes',
  note: 'note',
  none: 'leave out',
}
const table = ref<File>()
const preview = ref<PaperPreview>()
const columns = ref<PaperColumn[]>()
const dates = ref<PaperDates>()
/** One log, however often it is sent. */
let log = newId()
const { problem, busy, attempt, once } = useAttempt()
const good = computed(() => (preview.value ? preview.value.rows - preview.value.wrong : 0))
const shows = (c: PaperColumn) => preview.value?.columns.includes(c)
const query = () => ({ columns: columns.value, dates: dates.value })

/** An answer that is late is no answer: something else has been said of the table since. */
let asked = 0
const read = () =>
  attempt(async () => {
    if (!table.value) return
    const mine = ++asked
    const got = await answer(
      client.POST('/paper/read', { params: { query: query() }, ...fileBody(table.value) }),
    )
    if (mine !== asked) return
    preview.value = got
    columns.value = got.columns
  })
function picked(file: File) {
  table.value = file
  columns.value = undefined
  dates.value = undefined
  log = newId()
  void read()
}
function set(i: number, to: string) {
  columns.value = columns.value?.map((c, k) => (k === i ? (to as PaperColumn) : c))
  void read()
}
function order(to: PaperDates) {
  dates.value = to
  void read()
}
const keep = () =>
  once(async () => {
    if (!table.value) return
    const params = { path: { logId: log }, query: query() }
    const kept = await answer(client.PUT('/paper/{logId}', { params, ...fileBody(table.value) }))
    const known = kept.known ? `, ${kept.known} were here already` : ''
    emit('done')
    if (!kept.kept) return void ElMessage({ message: `Nothing is new${known}.` })
    const mine = log
    undoable(`${count(kept.kept, 'line is', 'lines are')} kept${known}.`, async () => {
      await answer(client.DELETE('/paper/{logId}', { params: { path: { logId: mine } } }))
    })
  })
</script>

<template>
  <div class="stack">
    <ProblemNote v-if="problem" :problem="problem" />
    <p>
      <FileButton accept=".csv,.tsv,.txt,text/*" @picked="picked">Choose a CSV file</FileButton
      ><template v-if="table">: {{ table.name }}</template>
    </p>
    <p v-if="!preview" class="small quiet">
      One line for each drill and day: day, student, drill, tempo, minutes, note, in any order. What
      is kept is shown on each student’s progress, beside what was measured and never as such.
    </p>
    <template v-else>
      <p v-if="dates || preview.dates === 'unclear'" class="row">
        <span>Days as 3/12/2025:</span>
        <button
          data-test="dates"
          :data-of="'dayFirst'"
          type="button"
          class="chip"
          :aria-pressed="preview.dates === 'dayFirst'"
          @click="order('dayFirst')"
        >
          3 December
        </button>
        <button
          type="button"
          class="chip"
          :aria-pressed="preview.dates === 'monthFirst'"
          @click="order('monthFirst')"
        >
          12 March
        </button>
      </p>
      <fieldset v-if="preview.heads.length" class="columns">
        <legend>What the columns hold</legend>
        <label v-for="(head, i) in preview.heads" :key="i">
          <span class="small">{{ head || `column ${i + 1}` }}</span>
          <select
            :value="preview.columns[i] ?? 'none'"
            @change="set(i, ($event.target as HTMLSelectElement).value)"
          >
            <option v-for="(text, c) in words" :key="c" :value="c">{{ text }}</option>
          </select>
        </label>
      </fieldset>
      <div class="scroll-x preview" role="region" tabindex="0" aria-label="Preview">
        <table class="plain">
          <thead>
            <tr>
              <th class="number">Line</th>
              <th>Day</th>
              <th v-if="shows('student')">Student</th>
              <th>Drill</th>
              <th class="number">bpm</th>
              <th class="number">Minutes</th>
            </tr>
          </thead>
          <tbody>
            <template v-for="e in preview.entries" :key="e.line">
              <tr :class="{ wrong: e.fault }">
                <td class="number figures">{{ e.line }}</td>
                <td class="whole">{{ e.day.startsWith('0001') ? '–' : dateOf(e.day) }}</td>
                <td v-if="shows('student')">{{ e.student }}</td>
                <td>{{ e.drill }}</td>
                <td class="number figures">{{ e.bpm ?? '–' }}</td>
                <td class="number figures">{{ e.minutes ?? '–' }}</td>
              </tr>
              <tr v-if="e.fault" class="wrong why">
                <td></td>
                <td colspan="5">
                  <b>{{ e.fault }}</b>
                </td>
              </tr>
            </template>
          </tbody>
        </table>
      </div>
      <div class="row">
        <el-button data-test="keep-lines" type="primary" :disabled="!good || busy" @click="keep">{{
          good ? `Keep ${count(good, 'line')}` : 'Nothing to keep'
        }}</el-button>
        <p v-if="preview.wrong" class="roomy">
          {{ count(preview.wrong, 'line is', 'lines are') }} left out as
          {{ preview.wrong === 1 ? 'it is' : 'they are' }}. Mended in the table, it can be taken
          once more: what is kept already stays one.
        </p>
      </div>
    </template>
  </div>
</template>

<style scoped>
@import '../bench/form.css';
.columns {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2) var(--s4);
}
.columns label {
  display: grid;
}
.columns select {
  font: inherit;
  color: inherit;
  background: var(--sheet);
  border: 1px solid var(--line-2);
  border-radius: var(--round);
  padding: var(--s1);
}
.preview {
  max-height: 34vh;
  overflow-y: auto;
}
.plain td {
  padding-block: var(--s1);
}
.wrong:not(.why) td {
  border-bottom: 0;
}
.wrong {
  background: var(--sheet-2);
}
</style>
