<script setup lang="ts">
import { ElButton, ElInput, ElMessage } from 'element-plus'
import { onMounted, ref } from 'vue'
import { RouterLink } from 'vue-router'

import { answer, client, type Lesson, type LessonNote } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { newId } from '../../api/ids'
import ConflictNote from '../../components/ConflictNote.vue'
import SoundBar from '../../components/SoundBar.vue'
import { undoable } from '../../components/undo'
import { count, dayOf, momentOf, rungShort } from '../../draw/words'
import { useStudent } from '../students/student'
import NextWeek from './NextWeek.vue'

/** The next half hour with a student: what is new, what to look at, what to hear, what to set. */
const { pupil, isAway } = useStudent()
const id = pupil.value.member.person.id
const lesson = ref<Lesson>()
const text = ref('')
/** The note that is being written, or changed. */
const note = ref<{ id: string; revision: number }>({ id: newId(), revision: 0 })
const { problem, busy, attempt, once } = useAttempt()
const load = async () => {
  const params = { path: { studentId: id } }
  lesson.value = await answer(client.GET('/students/{studentId}/lesson', { params }))
}
onMounted(() => attempt(load))

function write(n?: LessonNote) {
  note.value = n ? { id: n.id, revision: n.revision } : { id: newId(), revision: 0 }
  text.value = n?.text ?? ''
}
const put = (what: { id: string; revision: number }, words: string) =>
  answer(
    client.PUT('/students/{studentId}/lessons/{lessonId}', {
      params: {
        path: { studentId: id, lessonId: what.id },
        header: { 'If-Match': what.revision },
      },
      body: { text: words },
    }),
  )
const save = () =>
  once(async () => {
    if (!text.value.trim()) return
    await put(note.value, text.value)
    write()
    await load()
    ElMessage({ message: 'Noted' })
  })
/** Somebody has changed it meanwhile: theirs is shown instead, or one's own is kept. */
async function settle(keepMine: boolean) {
  const mine = text.value
  await attempt(load)
  const theirs = lesson.value?.notes.find((n) => n.id === note.value.id)
  write(theirs)
  if (!keepMine || problem.value) return
  text.value = mine
  await save()
}
const remove = (n: LessonNote) =>
  attempt(async () => {
    const params = { path: { studentId: id, lessonId: n.id } }
    await answer(client.DELETE('/students/{studentId}/lessons/{lessonId}', { params }))
    await load()
    undoable('The note is away.', async () => {
      await put(n, n.text)
      await attempt(load)
    })
  })
</script>

<template>
  <div class="stack">
    <ConflictNote v-if="problem" :problem="problem" @settle="settle" />
    <div v-if="lesson" class="side-by-side">
      <div class="stack">
        <section class="sheet stack">
          <h2>Since {{ dayOf(lesson.since) }}</h2>
          <ul class="said">
            <li v-for="s in lesson.said" :key="s">{{ s }}</li>
          </ul>
        </section>
        <section class="sheet stack">
          <h2>To look at</h2>
          <ul v-if="lesson.needs.length || lesson.comments">
            <li v-for="n in lesson.needs" :key="n.text">{{ n.text }}</li>
            <li v-if="lesson.comments">
              <RouterLink :to="`/students/${id}/takes`">{{
                count(lesson.comments, 'answer')
              }}</RouterLink>
              not read yet.
            </li>
          </ul>
          <p v-else class="quiet">Nothing stands out.</p>
        </section>
        <section class="sheet stack">
          <h2>To hear</h2>
          <p v-if="!lesson.hear.length" class="quiet">No take that counts since then.</p>
          <article v-for="(t, i) in lesson.hear" :key="t.id">
            <p>
              <b>{{ i === 0 ? 'Went best: ' : 'Shows the trouble: ' }}</b>
              <RouterLink :to="`/takes/${t.id}`"
                >{{ t.drillName }}, {{ rungShort(t.rung) }}</RouterLink
              >
              <span class="quiet when">
                {{ momentOf(t.recordedAt)
                }}<template v-if="t.measured"
                  >, spread {{ t.measured.spreadPercent.toFixed(1) }} % of the interval, gate
                  {{ t.measured.decision.gate.spreadPercent }}</template
                ></span
              >
            </p>
            <SoundBar v-if="!t.soundDropped" :src="`/api/takes/${t.id}/sound`" />
            <p v-else class="small quiet">The sound is no longer kept.</p>
          </article>
        </section>
      </div>
      <div class="stack">
        <form class="sheet stack" @submit.prevent="save">
          <h2>Note of this lesson</h2>
          <el-input
            v-model="text"
            type="textarea"
            :rows="5"
            maxlength="4000"
            aria-label="Note of this lesson"
            placeholder="What was done, what was said, what is next. The student does not see it."
          />
          <div class="row">
            <el-button
              data-test="note-it"
              type="primary"
              native-type="submit"
              :disabled="busy || !text.trim()"
              >{{ note.revision ? 'Change the note' : 'Note it' }}</el-button
            >
            <el-button v-if="note.revision" @click="write()">Leave it</el-button>
          </div>
        </form>
        <section class="sheet stack">
          <h2>To record now</h2>
          <div class="row">
            <RouterLink v-for="a in pupil.assignments" :key="a.id" :to="`/stand/${a.id}`"
              >{{ a.drillName }}, {{ rungShort(a.rung, a.climb.mixed) }}</RouterLink
            >
          </div>
          <p class="small quiet">
            On this device, here in the lesson: it is the student’s take like any other.
          </p>
        </section>
        <section v-if="lesson.notes.length" class="sheet stack">
          <h2>Lessons before</h2>
          <article v-for="n in lesson.notes" :key="n.id">
            <p class="small quiet row">
              <span class="grow">{{ momentOf(n.at) }}, {{ n.author }}</span>
              <button type="button" class="link" @click="write(n)">change</button>
              <button type="button" class="link" @click="remove(n)">remove</button>
            </p>
            <p class="text">{{ n.text }}</p>
          </article>
        </section>
      </div>
    </div>
    <NextWeek :student="id" :editable="!isAway" />
  </div>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.said li:first-child {
  font-weight: 700;
}
article {
  display: grid;
  gap: var(--s2);
}
.when {
  margin-left: var(--s2);
}
article b {
  white-space: pre;
}
.text {
  white-space: pre-line;
}
</style>
