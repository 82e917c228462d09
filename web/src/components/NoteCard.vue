<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { useAttempt } from '../api/attempt'
import { answer, client, type Comment, type MeasuredTake } from '../api/client'
import { newId } from '../api/ids'
import { teaches } from '../api/people'
import { levelWords, placeWords, whenWords } from '../draw/notewords'
import { noteName, signed } from '../draw/words'
import { naming } from '../preferences'
import { person } from '../session'
import ProblemNote from './ProblemNote.vue'
import { undoable } from './undo'

/** One note of a take: what was measured, to be heard, with what is pinned to it. */
const props = defineProps<{ take: MeasuredTake; index: number }>()
const comments = defineModel<Comment[]>('comments', { required: true })
const emit = defineEmits<{ hear: [from: number]; loop: [from: number, to: number]; close: [] }>()

const size = computed(() => props.take.chart.notes.length)
const chart = computed(() => props.take.chart.notes[props.index % size.value])
const heard = computed(() => props.take.analysis.notes[props.index])
const pinned = computed(() => comments.value.filter((c) => c.note === props.index))
const text = ref('')
const { problem, attempt } = useAttempt()
watch(
  () => props.index,
  () => ((text.value = ''), (problem.value = undefined)),
)

const at = computed(() => heard.value?.t ?? heard.value?.expectedT ?? 0)
const secondsPerBeat = computed(() => 60 / props.take.analysis.tempo.bpm)
/** The bar of the note, in seconds of the recording. */
const bar = computed(() => {
  const beats = props.take.chart.beatsPerBar || 4
  const into = (chart.value?.beat ?? 0) % beats
  const from = (heard.value?.expectedT ?? 0) - into * secondsPerBeat.value
  return { from: from - 0.05, to: from + beats * secondsPerBeat.value - 0.05 }
})
const facts = computed(() => {
  const h = heard.value
  if (!h || h.status === 'missed') return []
  const row = (name: string, value: string, fault = false) => ({
    name,
    value,
    note: fault ? 'heard' : 'not heard',
    fault,
  })
  const all = [row('Time', whenWords(h), h.uneven), row('Level', levelWords(h), h.stands)]
  const more = (name: string, value: string) => all.push({ name, value, note: '', fault: false })
  if (h.status === 'wrong')
    more(
      'Pitch',
      `${noteName(h.midi ?? 0, naming.value)} instead of ${noteName(chart.value?.midi ?? 0, naming.value)}`,
    )
  if (h.gapMs !== undefined) more('Gap', `${h.gapMs.toFixed(0)} ms of silence before the next`)
  if (h.ringsDb !== undefined)
    more('Ringing', `the string before still sounds, ${signed(h.ringsDb)} dB of what it was`)
  if (h.bendCents !== undefined)
    more('Pitch at its end', `${signed(h.bendCents)} cents: the string is dragged aside`)
  return all
})

const pin = () =>
  attempt(async () => {
    await put(newId(), props.index, text.value.trim())
    text.value = '' // where it fails, the words stay in the field
  })
async function put(commentId: string, note: number, text: string) {
  comments.value = await answer(
    client.PUT('/takes/{takeId}/comments/{commentId}', {
      params: { path: { takeId: props.take.summary.id, commentId }, header: { 'If-Match': 0 } },
      body: { note, text },
    }),
  )
}
const unpin = (comment: Comment) =>
  attempt(async () => {
    await answer(
      client.DELETE('/takes/{takeId}/comments/{commentId}', {
        params: { path: { takeId: props.take.summary.id, commentId: comment.id } },
      }),
    )
    comments.value = comments.value.filter((c) => c.id !== comment.id)
    undoable('Comment removed.', () => put(comment.id, comment.note, comment.text))
  })
</script>

<template>
  <section
    v-if="chart && heard"
    data-test="note"
    :data-of="`${(index % size) + 1}/${Math.floor(index / size) + 1}`"
    class="card"
    aria-label="The note"
  >
    <div class="row head">
      <h3>
        Note {{ (index % size) + 1
        }}<template v-if="take.analysis.notes.length > size"
          >, pass {{ Math.floor(index / size) + 1 }}</template
        >
      </h3>
      <span class="quiet">{{ placeWords(chart) }}</span>
      <button type="button" class="plain-button close" @click="emit('close')">Close</button>
    </div>
    <p v-if="heard.status === 'missed'">Missed: no sound was heard for it.</p>
    <dl v-else>
      <div v-for="f in facts" :key="f.name">
        <dt>{{ f.name }}</dt>
        <dd :class="{ fault: f.fault }">
          {{ f.value }} <span v-if="f.note" class="quiet small">({{ f.note }})</span>
        </dd>
      </div>
    </dl>
    <div class="row">
      <button
        data-test="play-from-note"
        type="button"
        class="plain-button"
        @click="emit('hear', at - 0.05)"
      >
        Play from here
      </button>
      <button
        data-test="repeat-bar"
        type="button"
        class="plain-button"
        @click="emit('loop', bar.from, bar.to)"
      >
        Repeat this bar
      </button>
      <button
        type="button"
        class="plain-button"
        @click="emit('loop', at - secondsPerBeat, at + secondsPerBeat)"
      >
        Repeat a beat on each side
      </button>
    </div>
    <ul v-if="pinned.length" class="comments">
      <li v-for="c in pinned" :key="c.id" data-test="comment" :data-of="c.author.name">
        <b>{{ c.author.name }}:</b> {{ c.text }}
        <button
          v-if="c.author.id === person?.id"
          data-test="remove-comment"
          type="button"
          class="plain-button small"
          @click="unpin(c)"
        >
          Remove
        </button>
      </li>
    </ul>
    <form v-if="person" class="row" @submit.prevent="pin">
      <input
        v-model="text"
        maxlength="2000"
        :placeholder="
          teaches(person)
            ? `A comment for ${take.summary.student.name}`
            : pinned.length
              ? 'Your answer'
              : 'A question about this note'
        "
        aria-label="Comment on this note"
      />
      <button data-test="pin" type="submit" class="plain-button" :disabled="!text.trim()">
        {{ pinned.length ? 'Answer' : 'Pin comment' }}
      </button>
    </form>
    <ProblemNote v-if="problem" :problem="problem" />
  </section>
</template>

<style scoped>
.card {
  display: grid;
  gap: var(--s3);
  padding: var(--s4);
  background: var(--sheet-2);
  border: 1px solid var(--line-2);
  border-radius: var(--round);
}
h3 {
  font-size: var(--t-lead);
}
.close {
  margin-left: auto;
}
dl {
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2) var(--s5);
}
dt {
  font-size: var(--t-small);
  color: var(--ink-2);
  font-weight: 600;
}
dd {
  margin: 0;
}
.fault {
  font-weight: 700;
}
.comments {
  padding: 0;
  list-style: none;
  display: grid;
  gap: var(--s2);
}
form input {
  flex: 1 1 240px;
  font-size: var(--t-body);
  padding: 8px 12px;
  border: 1px solid var(--line-2);
  border-radius: var(--round);
  background: var(--sheet);
  color: var(--ink);
}
.plain-button {
  font-size: var(--t-small);
  padding: 8px 14px;
  border: 1px solid var(--line-2);
  border-radius: var(--round);
  background: var(--sheet);
  color: var(--ink);
  cursor: pointer;
}
.plain-button:hover:not(:disabled) {
  border-color: var(--ink);
}
.plain-button:disabled {
  color: var(--ink-3);
  cursor: default;
}
</style>
