<script setup lang="ts">
import { ElButton } from 'element-plus'
import { ref } from 'vue'

import { useAttempt } from '../../api/attempt'
import type { DrillFile, PatternOf } from '../../api/client'
import { importDrill } from '../../api/drills'
import { attackMarks } from '../../draw/tab'
import { attackNames } from '../../draw/words'

/** A cell of one's own: a list of notes, clicked on the neck, or typed as tab. */
const pattern = defineModel<PatternOf<'free'>>({ required: true })
const props = defineProps<{ whom?: string }>()
const emit = defineEmits<{ taken: [file: DrillFile, told: string[]] }>()

type Note = PatternOf<'free'>['notes'][number]
type Attack = NonNullable<Note['attack']>

const tab = ref('')
const { problem, attempt } = useAttempt()

function change(at: number, parts: Partial<Note>) {
  const notes = pattern.value.notes.map((n, i) => (i === at ? clean({ ...n, ...parts }) : n))
  pattern.value = { ...pattern.value, notes }
}
/** Leaves out what is left open. */
function clean(n: Note): Note {
  return Object.fromEntries(Object.entries(n).filter(([, v]) => v !== undefined)) as Note
}
function remove(at: number) {
  pattern.value = { ...pattern.value, notes: pattern.value.notes.filter((_, i) => i !== at) }
}
function double(at: number) {
  const notes = [...pattern.value.notes]
  const note = notes[at]
  if (note) notes.splice(at, 0, { ...note })
  pattern.value = { ...pattern.value, notes }
}
function setAttack(at: number, attack: string) {
  change(at, {
    attack: attack === '' ? undefined : (attack as Attack),
    hand: attack === 'tap' ? 'tap' : undefined,
  })
}
function read() {
  return attempt(async () => {
    const { file, told } = await importDrill(tab.value, { for: props.whom })
    emit('taken', file, told)
    tab.value = ''
  })
}
</script>

<template>
  <div class="free">
    <p class="small quiet">Click places on the neck, one after another, or type tab.</p>
    <ol v-if="pattern.notes.length" class="notes" aria-label="Notes of the cell">
      <li v-for="(n, i) in pattern.notes" :key="i">
        <span class="figures place">{{ n.string }}/{{ n.fret }}</span>
        <select
          :value="n.attack ?? ''"
          :aria-label="`Attack of note ${i + 1}`"
          @change="setAttack(i, ($event.target as HTMLSelectElement).value)"
        >
          <option value="">by the rule</option>
          <option v-for="(_, a) in attackMarks" :key="a" :value="a">{{ attackNames[a] }}</option>
        </select>
        <select
          :value="n.finger ?? 0"
          :aria-label="`Finger of note ${i + 1}`"
          @change="
            change(i, { finger: Number(($event.target as HTMLSelectElement).value) || undefined })
          "
        >
          <option :value="0">finger?</option>
          <option v-for="f in 4" :key="f" :value="f">finger {{ f }}</option>
        </select>
        <button
          type="button"
          :aria-label="`Double note ${i + 1}`"
          title="Double"
          @click="double(i)"
        >
          +
        </button>
        <button
          type="button"
          :aria-label="`Remove note ${i + 1}`"
          title="Remove"
          @click="remove(i)"
        >
          −
        </button>
      </li>
    </ol>
    <div class="row">
      <el-button
        size="small"
        :disabled="pattern.notes.length === 0"
        @click="remove(pattern.notes.length - 1)"
        >Remove the last</el-button
      >
      <el-button
        data-test="clear"
        size="small"
        :disabled="pattern.notes.length === 0"
        @click="pattern = { ...pattern, notes: [] }"
        >Clear</el-button
      >
    </div>
    <textarea
      v-model="tab"
      data-test="tab"
      class="figures"
      rows="3"
      spellcheck="false"
      aria-label="Tab"
      placeholder="3:5h7p5 2:8    or lines such as  3|--5h7--"
    />
    <div>
      <el-button data-test="read-tab" size="small" :disabled="!tab.trim()" @click="read"
        >Read this tab</el-button
      >
    </div>
    <p v-if="problem" class="fault" role="alert">{{ problem.detail }}</p>
  </div>
</template>

<style scoped>
@import './form.css';
.free {
  display: grid;
  gap: var(--s2);
}
.notes {
  margin: 0;
  padding: 0 0 0 26px;
  max-height: 220px;
  overflow-y: auto;
  font-size: var(--t-small);
}
.notes li {
  padding: 1px 0;
}
.place {
  display: inline-block;
  width: 38px;
  font-weight: 700;
}
.notes select,
.notes button {
  border: 1px solid var(--line-2);
  border-radius: 4px;
  background: var(--sheet);
  color: var(--ink);
  font-size: calc(13px * var(--scale, 1));
  margin-left: 3px;
  padding: 1px 2px;
}
.notes select {
  max-width: 96px;
}
.notes button {
  width: 24px;
}
textarea {
  width: 100%;
  border: 1px solid var(--line-2);
  border-radius: var(--round);
  background: var(--sheet);
  color: var(--ink);
  padding: var(--s2);
  font-family: ui-monospace, 'DejaVu Sans Mono', monospace;
  font-size: calc(13px * var(--scale, 1));
}
</style>
