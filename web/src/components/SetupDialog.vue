<script setup lang="ts">
import { ElButton, ElDialog, ElMessage } from 'element-plus'
import { onMounted, ref } from 'vue'
import { RouterLink } from 'vue-router'

import { useAttempt } from '../api/attempt'
import { answer, client, type Person, type SavedSetup, type Setup } from '../api/client'
import { teaches } from '../api/people'
import { noteName, noteNumber } from '../draw/words'
import ChoiceLine from '../views/bench/ChoiceLine.vue'
import ListLine from '../views/bench/ListLine.vue'
import NumberLine from '../views/bench/NumberLine.vue'
import SwitchLine from '../views/bench/SwitchLine.vue'
import ConflictNote from './ConflictNote.vue'

/** Somebody's guitar and hand, and what an instructor holds for hard. */
const props = defineProps<{ person: Person }>()
const emit = defineEmits<{ close: []; changed: [] }>()

const setup = ref<Setup>()
const revision = ref(0)
const schools = ref<SavedSetup['schools']>([])
const { problem, attempt } = useAttempt()
const tunings = [
  { name: 'E standard', notes: [64, 59, 55, 50, 45, 40] },
  { name: 'drop D', notes: [64, 59, 55, 50, 45, 38] },
  { name: 'E♭ standard', notes: [63, 58, 54, 49, 44, 39] },
  { name: '7 strings, B', notes: [64, 59, 55, 50, 45, 40, 35] },
  { name: '4-string bass', notes: [43, 38, 33, 28] },
]
const pairs = ['12', '23', '34', '13', '24', '14']
const parts = [
  { key: 'stretch', name: 'Stretch' },
  { key: 'pairs', name: 'Weak pairs' },
  { key: 'crossings', name: 'String crossings' },
  { key: 'skips', name: 'Strings skipped' },
  { key: 'shifts', name: 'Shifts' },
  { key: 'hands', name: 'Taps and two hands' },
  { key: 'speed', name: 'Speed' },
] as const
const path = { personId: props.person.id }

onMounted(() =>
  attempt(async () => {
    await load()
  }),
)

async function load() {
  const saved = await answer(client.GET('/people/{personId}/setup', { params: { path } }))
  setup.value = saved.setup
  revision.value = saved.revision
  schools.value = saved.schools
}

/** Why the chosen way of a school is chosen. */
function reasonOf(c: SavedSetup['schools'][number]): string {
  const way = setup.value?.school?.[c.id]
  return (c.options.find((o) => o.value === way) ?? c.options[0])?.reason ?? ''
}
function setTuning(text: string) {
  const notes = text.trim().split(/\s+/).map(noteNumber)
  if (setup.value && notes.every((n) => n !== undefined))
    setup.value = { ...setup.value, guitar: { ...setup.value.guitar, tuning: notes } }
}
function save() {
  const body = setup.value
  if (!body) return
  return attempt(async () => {
    const params = { path, header: { 'If-Match': revision.value } }
    await answer(client.PUT('/people/{personId}/setup', { params, body }))
    ElMessage({ message: 'Guitar and hand saved' })
    emit('changed')
    emit('close')
  })
}
/** Somebody has changed it meanwhile: theirs is shown instead, or one's own is kept. */
async function settle(keepMine: boolean) {
  const mine = setup.value
  await attempt(load)
  if (!keepMine || problem.value) return
  setup.value = mine
  await save()
}
</script>

<template>
  <el-dialog
    data-test="setup-dialog"
    :data-of="person.name"
    :model-value="true"
    :title="`Guitar and hand of ${person.name}`"
    width="760"
    top="6vh"
    @close="emit('close')"
  >
    <ConflictNote v-if="problem" :problem="problem" @settle="settle" />
    <div v-if="setup" class="parts">
      <fieldset>
        <legend>Guitar</legend>
        <div class="chips">
          <button
            v-for="t in tunings"
            :key="t.name"
            data-test="tuning"
            :data-of="t.name"
            type="button"
            class="chip"
            :aria-pressed="t.notes.join() === setup.guitar.tuning.join()"
            @click="setup.guitar.tuning = t.notes"
          >
            {{ t.name }}
          </button>
        </div>
        <ListLine
          name="Tuning"
          hint="string 1 first"
          :text="setup.guitar.tuning.map((n) => noteName(n)).join(' ')"
          @typed="setTuning"
        />
        <NumberLine v-model="setup.guitar.frets" name="Frets" :min="1" :max="36" />
        <NumberLine
          :model-value="setup.guitar.reachable ?? 0"
          name="Highest fret in reach"
          label="Highest fret in reach (0 all)"
          :min="0"
          :max="36"
          @update:model-value="(v) => (setup!.guitar.reachable = v || undefined)"
        />
        <NumberLine
          :model-value="setup.guitar.capo ?? 0"
          name="Capo at fret"
          :min="0"
          :max="12"
          @update:model-value="(v) => (setup!.guitar.capo = v || undefined)"
        />
        <NumberLine v-model="setup.guitar.scaleMm" name="Scale length, mm" :min="300" :max="1000" />
        <SwitchLine
          v-model="setup.leftHanded"
          data-test="left-handed"
          name="Left-handed: the neck is mirrored"
        />
      </fieldset>
      <fieldset>
        <legend>Comfortable reach, mm</legend>
        <p class="small quiet">
          Between two fingertips, hand at ease. Never to be forced; it grows by itself.
          <RouterLink :to="`/reach/${person.id}`"
            >Find it in two minutes, with the guitar</RouterLink
          >
        </p>
        <NumberLine
          v-for="pair in pairs"
          :key="pair"
          :data-test="`reach-${pair}`"
          :model-value="setup.hand[pair] ?? 60"
          :name="`Fingers ${pair[0]} and ${pair[1]}`"
          :min="15"
          :max="220"
          @update:model-value="(v) => (setup!.hand[pair] = v)"
        />
      </fieldset>
      <fieldset v-if="!teaches(person)" class="wide">
        <legend>School: how they are to move where teachers differ</legend>
        <div v-for="c in schools" :key="c.id">
          <ChoiceLine
            :model-value="setup.school?.[c.id] ?? c.options[0]!.value"
            :name="c.name"
            :options="c.options.map((o) => ({ value: o.value, label: o.name }))"
            stacked
            @update:model-value="(v) => (setup!.school = { ...setup!.school, [c.id]: v })"
          />
          <p class="small quiet">{{ reasonOf(c) }}</p>
        </div>
      </fieldset>
      <template v-if="teaches(person)">
        <fieldset>
          <legend>Weight in the difficulty</legend>
          <NumberLine
            v-for="p in parts"
            :key="p.key"
            :model-value="setup.weights[p.key] ?? 1"
            :name="p.name"
            :min="0"
            :max="5"
            :step="0.5"
            @update:model-value="(v) => (setup!.weights[p.key] = v)"
          />
        </fieldset>
        <fieldset>
          <legend>How hard each pair is, 0 to 1</legend>
          <NumberLine
            v-for="pair in pairs"
            :key="pair"
            :model-value="setup.weights.pair[pair] ?? 0"
            :name="`Pair ${pair[0]}-${pair[1]}`"
            :min="0"
            :max="1"
            :step="0.1"
            @update:model-value="(v) => (setup!.weights.pair[pair] = v)"
          />
        </fieldset>
      </template>
    </div>
    <template #footer>
      <el-button @click="emit('close')">Leave as it was</el-button>
      <el-button data-test="save-setup" type="primary" @click="save">Save</el-button>
    </template>
  </el-dialog>
</template>

<style scoped>
@import '../views/bench/form.css';
.parts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(280px, 1fr));
  gap: var(--s4) var(--s5);
}
fieldset {
  align-content: start;
}
.wide {
  grid-column: 1 / -1;
}
legend {
  font-weight: 700;
  padding-bottom: var(--s1);
}
</style>
