<script setup lang="ts">
import { ElButton, ElMessage, ElOption, ElSelect } from 'element-plus'
import { computed, onMounted, ref } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'

import {
  answer,
  client,
  type Pupil,
  type ReadyRoutine,
  type Routine,
  type RoutineItem,
  type SavedBlock,
  type SavedDrill,
  type SavedRoutine,
} from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { bringBackRoutine } from '../../api/bin'
import { allBlocks, allDrills, keepIn } from '../../api/drills'
import { newId } from '../../api/ids'
import { addReadyRoutine, deleteRoutine, putRoutine, routine as load } from '../../api/routines'
import ConflictNote from '../../components/ConflictNote.vue'
import TextLine from '../../components/TextLine.vue'
import { undoable } from '../../components/undo'
import { aboutMinutes } from '../../draw/routinewords'
import { count } from '../../draw/words'
import ItemRow from './ItemRow.vue'
import { moved, newDrill, newNote, newRest } from './items'

/** What a student practises, composed: drills, rests and notes, in order. */
const { student: studentId, id: routineId } = useRoute().params as { student: string; id: string }
const router = useRouter()
const id = routineId === 'new' ? newId() : routineId
const pupil = ref<Pupil>()
const saved = ref<SavedRoutine>()
const drills = ref<SavedDrill[]>([])
const blocks = ref<SavedBlock[]>([])
const ready = ref<ReadyRoutine[]>([])
const form = ref<Routine>({ name: '', items: [] })
/** Each item's own key, so that rows keep what is typed while they move. */
const keys = ref<number[]>([])
let lastKey = 0
const { problem, busy, attempt, once } = useAttempt()
const name = computed(() => pupil.value?.member.person.name ?? '')
const changed = computed(
  () =>
    JSON.stringify(form.value) !== JSON.stringify(saved.value?.routine ?? { name: '', items: [] }),
)

function show(r: SavedRoutine) {
  saved.value = r
  form.value = structuredClone(r.routine)
  keys.value = r.routine.items.map(() => ++lastKey)
}
onMounted(() =>
  attempt(async () => {
    const params = { path: { studentId } }
    const lists = Promise.all([allDrills(), allBlocks(), answer(client.GET('/bench'))])
    pupil.value = await answer(client.GET('/students/{studentId}', { params }))
    if (routineId !== 'new') show(await load(id))
    const [all, kept, bench] = await lists
    drills.value = all
    blocks.value = kept
    ready.value = bench.readyRoutines
  }),
)

function put(item: RoutineItem) {
  form.value.items.push(item)
  keys.value.push(++lastKey)
}
function setItem(at: number, item: RoutineItem) {
  form.value.items[at] = item
}
function move(at: number, by: number) {
  form.value.items = moved(form.value.items, at, at + by)
  keys.value = moved(keys.value, at, at + by)
}
function removeItem(at: number) {
  const [item] = form.value.items.splice(at, 1)
  const [key] = keys.value.splice(at, 1)
  if (!item || key === undefined) return
  undoable(`Item ${at + 1} is removed.`, async () => {
    form.value.items.splice(at, 0, item)
    keys.value.splice(at, 0, key)
  })
}

const begin = (from: ReadyRoutine) =>
  once(async () => {
    show(await addReadyRoutine(studentId, id, from.id))
    drills.value = await allDrills()
    await router.replace(`/students/${studentId}/routines/${id}`)
  })
const save = () =>
  once(async () => {
    show(await putRoutine(studentId, id, saved.value?.revision ?? 0, form.value))
    await router.replace(`/students/${studentId}/routines/${id}`)
    ElMessage({ message: `Saved. ${name.value} finds it under Practice.` })
  })
/** Somebody has changed it meanwhile: theirs is shown, or one's own takes its place. */
const settle = (keepMine: boolean) =>
  once(async () => {
    const mine = form.value
    const theirs = await load(id)
    show(theirs)
    if (keepMine) show(await putRoutine(studentId, id, theirs.revision, mine))
  })
const remove = () =>
  once(async () => {
    await deleteRoutine(id)
    undoable(`“${saved.value?.routine.name}” is taken from ${name.value}.`, () =>
      bringBackRoutine(id),
    )
    await router.push(`/students/${studentId}`)
  })
/** Each drill of a block for as long as the block has it; the drills are kept in a folder of its name. */
const putBlock = (b: SavedBlock) =>
  once(async () => {
    const kept = await keepIn(
      b.block.name.slice(0, 80),
      b.block.items.map((i) => i.file),
    )
    drills.value = await allDrills()
    kept.forEach((d, i) =>
      put({
        kind: 'drill',
        drill: d.id,
        enough: { by: 'seconds', count: b.block.items[i]?.seconds ?? 60 },
      }),
    )
  })
</script>

<template>
  <div class="stack">
    <ConflictNote v-if="problem" :problem="problem" @settle="settle" />
    <template v-if="pupil">
      <div class="row">
        <div class="grow">
          <p class="small">
            <RouterLink :to="`/students/${studentId}`">{{ name }}</RouterLink>
          </p>
          <h1>{{ saved?.routine.name ?? 'New routine' }}</h1>
          <p v-if="saved" class="quiet">
            {{ aboutMinutes(saved.seconds) }}, {{ count(saved.routine.items.length, 'item')
            }}<template v-if="saved.author"> · changed last by {{ saved.author }}</template>
          </p>
        </div>
        <el-button v-if="saved" :disabled="busy" @click="remove">Take it away</el-button>
        <el-button type="primary" :disabled="busy || !changed" @click="save">Save</el-button>
      </div>
      <section v-if="!saved && !form.items.length && ready.length" class="sheet stack">
        <h2>Begin with one that is ready</h2>
        <div class="ready">
          <article v-for="r in ready" :key="r.id">
            <b>{{ r.routine.name }}</b>
            <p class="small quiet">{{ r.about }}</p>
            <el-button size="small" :disabled="busy" @click="begin(r)"
              >Give {{ name }} this</el-button
            >
          </article>
        </div>
        <p class="quiet">Or compose one of your own:</p>
      </section>
      <form class="sheet stack" @submit.prevent="save">
        <div class="about">
          <TextLine v-model="form.name" name="Name" :max="120" />
          <TextLine
            :model-value="form.note ?? ''"
            name="What you say to it"
            :rows="2"
            :max="500"
            @update:model-value="(note) => (form.note = note || undefined)"
          />
        </div>
        <ol class="items">
          <ItemRow
            v-for="(item, i) in form.items"
            :key="keys[i]"
            :model-value="item"
            :number="i + 1"
            :drills="drills"
            :first="i === 0"
            :last="i === form.items.length - 1"
            @update:model-value="(v) => setItem(i, v)"
            @move="(by) => move(i, by)"
            @remove="removeItem(i)"
          />
        </ol>
        <p v-if="!form.items.length" class="quiet">
          Nothing in it yet. Put drills in, in the order in which they are to be played, and a rest
          before the hand asks for one.
        </p>
        <div class="row">
          <el-select
            class="choose"
            filterable
            :model-value="''"
            placeholder="Put a drill in"
            aria-label="Put a drill in"
            @update:model-value="(drill: string) => put(newDrill(drill))"
          >
            <el-option v-for="d in drills" :key="d.id" :value="d.id" :label="d.name" />
          </el-select>
          <el-button @click="put(newRest())">Put a rest in</el-button>
          <el-button @click="put(newNote())">Put a note in</el-button>
          <el-select
            v-if="blocks.length"
            class="choose"
            :model-value="''"
            placeholder="Put a block in"
            aria-label="Put a block in"
            :disabled="busy"
            @update:model-value="(b: string) => putBlock(blocks.find((x) => x.id === b)!)"
          >
            <el-option v-for="b in blocks" :key="b.id" :value="b.id" :label="b.block.name" />
          </el-select>
        </div>
      </form>
    </template>
  </div>
</template>

<style scoped>
.about {
  display: grid;
  grid-template-columns: minmax(220px, 1fr) minmax(280px, 2fr);
  gap: var(--s4);
}
@media (width < 700px) {
  .about {
    grid-template-columns: minmax(0, 1fr);
  }
}
.items {
  list-style: none;
  padding: 0;
}
.choose {
  width: 260px;
}
.ready {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: var(--s4);
}
article {
  display: grid;
  gap: var(--s2);
  align-content: start;
  justify-items: start;
}
</style>
