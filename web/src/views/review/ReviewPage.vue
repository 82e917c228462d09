<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { ElButton, ElInput } from 'element-plus'
import { computed, onMounted, ref } from 'vue'
import { RouterLink } from 'vue-router'

import {
  answer,
  client,
  isMeasured,
  type Stand,
  type Take,
  type WaitingTake,
} from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { getTake } from '../../api/takes'
import ProblemNote from '../../components/ProblemNote.vue'
import SetRungDialog from '../../components/SetRungDialog.vue'
import { undoable } from '../../components/undo'
import { count, dayOf, rungShort } from '../../draw/words'
import { inDialog } from '../../goto'
import { stepOf } from '../stand/ownTempo'
import TakeReport from '../take/TakeReport.vue'

/** Takes that wait, one after the other: heard, said something of, accepted, one key to the next. */
const waiting = ref<WaitingTake[]>()
const at = ref(0)
const take = ref<Take>()
const note = ref('')
const setting = ref<Stand>()
const { problem, busy, attempt, once } = useAttempt()
const now = computed(() => waiting.value?.[at.value])

async function open(to: number) {
  at.value = to
  note.value = ''
  take.value = undefined
  const wanted = now.value?.takeId
  if (!wanted) return
  const found = await getTake(wanted)
  if (now.value?.takeId === wanted) take.value = found
}
onMounted(() =>
  attempt(async () => {
    waiting.value = await answer(client.GET('/reviews'))
    await open(0)
  }),
)
const go = (by: number) => {
  const to = at.value + by
  if (waiting.value?.[to]) void attempt(() => open(to))
}

/** Says that it was heard, and goes on with the next. */
const say = (accepted: boolean) =>
  once(async () => {
    const done = now.value
    if (!done) return
    const params = { path: { takeId: done.takeId } }
    const body = { accepted, note: note.value.trim() || undefined }
    await answer(client.PUT('/takes/{takeId}/review', { params, body }))
    const place = at.value
    waiting.value = waiting.value!.filter((w) => w !== done)
    undoable(`${done.student.name}: ${accepted ? 'accepted' : 'once more'}.`, async () => {
      await answer(client.DELETE('/takes/{takeId}/review', { params }))
      waiting.value = waiting.value!.toSpliced(place, 0, done)
      await open(place)
    })
    await open(Math.min(place, waiting.value.length - 1))
  })
const setRung = () =>
  attempt(async () => {
    if (!now.value) return
    const path = { assignmentId: now.value.assignmentId }
    const stand = await answer(client.GET('/assignments/{assignmentId}', { params: { path } }))
    setting.value = stand
  })

useEventListener('keydown', (e) => {
  const typing = e.target instanceof HTMLInputElement || e.target instanceof HTMLTextAreaElement
  if (typing || e.ctrlKey || e.metaKey || e.altKey || inDialog()) return
  switch (e.key.toLowerCase()) {
    case 'a':
      void say(true)
      break
    case 'o':
      void say(false)
      break
    case 'r':
      void setRung()
      break
    case 'n':
      go(1)
      break
    case 'b':
      go(-1)
      break
    default:
      return
  }
  e.preventDefault()
})
</script>

<template>
  <div class="stack">
    <div class="row">
      <h1 class="grow">Review</h1>
      <p v-if="waiting?.length" class="small quiet">
        <kbd>A</kbd> accept <kbd>O</kbd> once more <kbd>R</kbd> set the rung <kbd>N</kbd> next
        <kbd>B</kbd> back
      </p>
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <div v-if="waiting && !waiting.length" class="sheet stack">
      <h2 data-test="none-waits">No take waits</h2>
      <p>
        Takes played at the stand come here by themselves, one of each drill of a student: the
        latest.
        <RouterLink to="/students">Students at a glance</RouterLink>
      </p>
    </div>
    <div v-if="waiting?.length" class="parts">
      <ol class="sheet queue">
        <li v-for="(w, i) in waiting" :key="w.takeId">
          <button
            type="button"
            :class="{ at: i === at }"
            :aria-current="i === at || undefined"
            @click="attempt(() => open(i))"
          >
            <b>{{ w.student.name }}</b>
            <span>{{ w.drillName }}, {{ rungShort(w.rung) }}</span>
            <span class="small quiet"
              >{{ dayOf(w.recordedAt)
              }}<template v-if="w.takes > 1">, {{ count(w.takes, 'take') }}</template></span
            >
          </button>
        </li>
      </ol>
      <div v-if="now" class="stack">
        <section class="sheet row bar">
          <el-input
            v-model="note"
            class="grow"
            maxlength="1000"
            :placeholder="`A word to ${now.student.name}`"
            :aria-label="`A word to ${now.student.name}`"
          />
          <el-button data-test="set-rung" @click="setRung">Set the rung</el-button>
          <el-button :disabled="busy" @click="say(false)">Once more</el-button>
          <el-button data-test="accept" type="primary" :disabled="busy" @click="say(true)"
            >Accept</el-button
          >
        </section>
        <p v-if="now.finding" class="small">
          <RouterLink :to="`/students/${now.student.id}`">{{ now.student.name }}</RouterLink>:
          {{ now.finding.text }}
          <template v-if="now.takes > 1">
            {{ count(now.takes - 1, 'earlier take is', 'earlier takes are') }} reviewed with this
            one.</template
          >
        </p>
        <TakeReport
          v-if="take && isMeasured(take)"
          :key="take.summary.id"
          :take="take"
          @corrected="(corrected) => (take = corrected)"
        />
      </div>
    </div>
    <SetRungDialog
      v-if="setting"
      :assignment="setting.assignment"
      :step="stepOf(setting)"
      :why="now && `After your take of ${dayOf(now.recordedAt)}, ${rungShort(now.rung)}.`"
      @close="setting = undefined"
      @set="setting = undefined"
    />
  </div>
</template>

<style scoped>
.parts {
  display: grid;
  grid-template-columns: 250px minmax(0, 1fr);
  gap: var(--s4);
  align-items: start;
}
.queue {
  list-style: none;
  margin: 0;
  padding: var(--s2);
  position: sticky;
  top: var(--s2);
  max-height: calc(100vh - 40px);
  overflow-y: auto;
}
.queue button {
  display: grid;
  width: 100%;
  text-align: left;
  font: inherit;
  line-height: 1.3;
  color: inherit;
  background: none;
  border: 0;
  border-left: 5px solid transparent;
  padding: var(--s2);
  cursor: pointer;
}
.queue .at {
  border-left-color: var(--ink);
  background: var(--sheet-2);
}
.bar {
  position: sticky;
  top: 0;
  z-index: 5;
  padding: var(--s2) var(--s3);
}
@media (width < 900px) {
  .parts {
    grid-template-columns: minmax(0, 1fr);
  }
  .queue {
    position: static;
    max-height: 200px;
  }
}
</style>
