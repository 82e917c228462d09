<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import { ElInput, ElMessage } from 'element-plus'
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'

import {
  answer,
  client,
  isChanged,
  problemOf,
  type Bench,
  type Drill,
  type DrillFile,
  type Mend,
  type Person,
  type SavedDrill,
} from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { changeDrill, createDrill } from '../../api/drills'
import { newId } from '../../api/ids'
import { allPeople } from '../../api/people'
import { draftKey, drafts, dropDraft } from '../../bench/drafts'
import { useHearing } from '../../bench/hearing'
import { meaning, useHistory } from '../../bench/history'
import { alone, faultsOf, partsOf, withAlone } from '../../bench/parts'
import { usePreview } from '../../bench/preview'
import AssignDialog from '../../components/AssignDialog.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import SetupDialog from '../../components/SetupDialog.vue'
import { undoable } from '../../components/undo'
import type { Place } from '../../draw/neck'
import { count, ladderWords } from '../../draw/words'
import { person } from '../../session'
import { giveFocusBack, rememberFocus } from './focus'
import { me } from './me'
import { asFamily, copyOf, familyOf, freshDrill } from './families'
import ConflictDialog from './ConflictDialog.vue'
import FamilyChooser from './FamilyChooser.vue'
import FreeField from './FreeField.vue'
import BenchTools from './BenchTools.vue'
import HandsForm from './HandsForm.vue'
import HearingBar from './HearingBar.vue'
import HistoryDialog from './HistoryDialog.vue'
import KeyField from './KeyField.vue'
import LadderForm from './LadderForm.vue'
import PartsField from './PartsField.vue'
import PathForm from './PathForm.vue'
import PatternForm from './PatternForm.vue'
import PreviewPane from './PreviewPane.vue'
import { useShortcuts } from './shortcuts'
import VariationsDialog from './VariationsDialog.vue'
import { homeOf } from '../../bench/home'
import { limits } from '../../api/limits.gen'

const props = defineProps<{
  bench: Bench
  /** Of a new drill: which one that is not saved yet. */
  draft: string
}>()
const route = useRoute()
const router = useRouter()
const id = String(route.params.id)
const isNew = id === 'new'

// What is being set, with every step, stays in the browser until it is saved.
const keyOf = (drill: string) => `manudrill bench ${drill}`
const history = useHistory<DrillFile>(isNew ? draftKey(props.draft) : keyOf(id), () =>
  freshDrill(props.bench),
)
const file = history.value
const saved = shallowRef<SavedDrill>()
/** What somebody else has made of the drill since it was opened here. */
const theirs = shallowRef<SavedDrill>()
const freshId = newId() // of a new drill: saved twice, it is one
const { preview, drawn, problem: previewProblem, look } = usePreview()
const hearing = useHearing()
const { problem, attempt } = useAttempt()
const dialog = ref<'assign' | 'setup' | 'variations' | 'history'>()

const people = ref<Person[]>([])
/** Whose guitar and hand the drill is for. */
const whom = useStorage('manudrill bench for', me, sessionStorage)
const whomId = computed(() => (whom.value === me ? undefined : whom.value))
const whose = computed(() => people.value.find((p) => p.id === whom.value) ?? person.value)

const bpm = ref<number>()
const hearBpm = computed({
  get: () => bpm.value ?? preview.value?.steps?.[0]?.rung.bpm ?? file.value.ladder.startBpm,
  set: (to) => (bpm.value = to),
})
const click = useStorage('manudrill bench click', true)

const changed = computed(
  () => isNew || (!!saved.value && meaning(saved.value.file) !== meaning(file.value)),
)
const state = computed(() => {
  if (isNew) return 'new'
  if (changed.value) return 'changed'
  return saved.value ? 'saved' : 'read'
})
const stateWords = { new: 'not saved yet', changed: 'changed, not saved', saved: 'saved', read: '' }
const faults = computed(() => preview.value?.faults ?? [])
/** The part that is being set; a drill may have been undone to fewer. */
const chosen = ref(0)
const partAt = computed(() => Math.min(chosen.value, partsOf(file.value.drill).length - 1))
const part = computed(() => alone(file.value.drill, partAt.value))
const faultOf = computed(() => faultsOf(faults.value, partAt.value))
const free = computed(() => (part.value.pattern.kind === 'free' ? part.value.pattern : undefined))
const strings = computed(() => drawn.value?.chart?.tuning.length ?? 6)
const family = computed({
  get: () => familyOf(part.value, props.bench.families),
  set: (to) => {
    const found = props.bench.families.find((f) => f.id === to)
    if (found) replacePart(asFamily(part.value, found, props.bench.families))
  },
})

function setDrill(drill: Drill) {
  file.value = { ...file.value, drill }
}
/** Sets the whole drill at once: a step of its own, however quickly it follows. */
function replaceDrill(drill: Drill) {
  history.settle()
  setDrill(drill)
}
function setPart(changed: Drill) {
  setDrill(withAlone(file.value.drill, partAt.value, changed))
}
function set(settings: Partial<Drill>) {
  setPart({ ...part.value, ...settings })
}
/** Another family for one part; where there are others, the rhythm stays theirs. */
function replacePart(made: Drill) {
  const { then, rhythm } = file.value.drill
  const { title, for: length } = part.value
  const kept = then ? { rhythm, title, for: length } : {}
  replaceDrill(withAlone(file.value.drill, partAt.value, { ...made, ...kept }))
}

const lookNow = () => look(file.value, whomId.value)
watch([file, whom], lookNow, { deep: true })

function getDrill() {
  return answer(client.GET('/drills/{drillId}', { params: { path: { drillId: id } } }))
}
async function load() {
  if (!isNew) {
    saved.value = await getDrill()
    history.rebase(copyOf(saved.value.file), saved.value.revision)
  }
}
onMounted(() =>
  attempt(async () => {
    await load()
    people.value = await allPeople()
    if (!people.value.some((p) => p.id === whom.value)) whom.value = me
    await lookNow()
    giveFocusBack()
  }),
)
onBeforeUnmount(() => history.leave())

/** What is being saved: one thing after another, each with what is set when its turn comes. */
let saving = Promise.resolve()
/** A drill of its own was made of what lies here: what is set from now on is part of that. */
let gone = false
function inTurn(action: () => Promise<unknown>) {
  saving = saving.then(() => (gone ? undefined : attempt(action)))
  return saving
}
function save() {
  return inTurn(async () => {
    if (!changed.value) return
    if (isNew) return saveAs(file.value.drill.name, 'Drill saved', router.replace)
    if (saved.value) await saveFrom(history.revision() ?? saved.value.revision)
  })
}
/** Saves what lies here as a drill of its own; the one it was made from stays as it is kept. */
function saveAsNew() {
  return inTurn(() => {
    const { name } = file.value.drill
    const own = name === saved.value?.name ? `${name.slice(0, 112)} (new)` : name
    return saveAs(own, `Saved as a new drill: “${own}”`, router.push)
  })
}
/** Makes a drill of what lies here, and goes to it with all steps and with what is set meanwhile. */
async function saveAs(name: string, told: string, go: (to: string) => Promise<unknown>) {
  history.settle() // what is saved can be undone to
  const was = file.value.drill.name
  const drill = { ...file.value.drill, name }
  const made = await createDrill({ ...file.value, drill }, whomId.value, freshId)
  gone = true
  if (file.value.drill.name === was) file.value.drill.name = name
  history.saved(copyOf(made.file), made.revision)
  history.moveTo(keyOf(made.id))
  ElMessage({ message: told })
  rememberFocus()
  await go(`/drills/${made.id}`)
}
/** New drills that were begun before, offered while nothing is set here yet. */
const offered = ref(isNew ? drafts().filter((d) => d.id !== props.draft) : [])
/** How many are offered at first. */
const fewDrafts = 3
const moreDrafts = ref(false)
const untouched = computed(() => isNew && !history.canUndo.value)
function drop(id: string, name: string) {
  const back = dropDraft(id)
  const list = () => (offered.value = drafts().filter((d) => d.id !== props.draft))
  list()
  undoable(`“${name}” is thrown away.`, () => {
    back()
    list()
    return Promise.resolve()
  })
}
/** Saves what lies on the bench as changed from a revision; what others have changed since is told. */
async function saveFrom(revision: number) {
  history.settle() // what is saved can be undone to
  const before = saved.value?.version
  try {
    saved.value = await changeDrill(id, revision, file.value, whomId.value)
  } catch (thrown) {
    if (!isChanged(thrown)) throw thrown
    theirs.value = await getDrill()
    return
  }
  theirs.value = undefined
  history.saved(copyOf(saved.value.file), saved.value.revision)
  const next = saved.value.version !== before
  ElMessage({ message: next ? `Saved as version ${saved.value.version}` : 'Drill saved' })
}
/** Two have changed the drill: keep mine, take theirs, or keep mine beside theirs. */
function settle(choice: 'mine' | 'theirs' | 'copy') {
  const other = theirs.value
  if (!other) return
  return inTurn(async () => {
    if (choice === 'mine') return saveFrom(other.revision)
    if (choice === 'copy') {
      const name = `${file.value.drill.name} (mine)`.slice(0, limits.Drill.name.maxLength)
      return saveAs(name, `Saved as a new drill: “${name}”`, router.push)
    }
    history.settle() // what was mine can be undone to
    saved.value = other
    file.value = copyOf(other.file)
    history.rebase(copyOf(other.file), other.revision)
    theirs.value = undefined
  })
}

function hear() {
  if (hearing.playing.value) return hearing.stop()
  const chart = preview.value?.chart
  if (chart)
    return attempt(() => hearing.play(file.value, chart, hearBpm.value, click.value, whomId.value))
}

function rework(change: {
  transpose?: number
  thicker?: number
  free?: boolean
  pickedFirst?: boolean
}) {
  return attempt(async () => {
    const got = await answer(
      client.POST('/rework', {
        body: { drill: file.value.drill, ...change },
        params: { query: { for: whomId.value } },
      }),
    )
    replaceDrill(got.drill)
  })
}

/** The hand is moved on the neck: along it, and across the strings. */
function move(frets: number, thicker: number) {
  const { path, pattern } = part.value
  const moved = path.strings.map((s) => s + thicker)
  const fits = moved.every((s) => s >= 1 && s <= strings.value)
  set({
    pattern,
    path: {
      ...path,
      position: Math.max(1, path.position + frets),
      strings: fits ? moved : path.strings,
      groups: path.groups?.map((g) => (fits ? g.map((s) => s + thicker) : g)),
    },
  })
}
function setFinger(place: Place, finger: number) {
  const { fingering } = part.value
  const others = (fingering.own ?? []).filter(
    (o) => o.string !== place.string || o.fret !== place.fret,
  )
  const own = finger ? [...others, { string: place.string, fret: place.fret, finger }] : others
  set({ fingering: { ...fingering, own: own.length ? own : undefined } })
}

/** A note is put on the neck; the cell stays where it lies. */
function addNote(string: number, fret: number) {
  const { pattern, path } = part.value
  if (pattern.kind !== 'free') return
  const notes = [...pattern.notes, { string, fret }]
  set({ pattern: { ...pattern, notes }, path: { ...path, ...homeOf(notes) } })
}
function adopt(taken: DrillFile, told: string[]) {
  replaceDrill({ ...taken.drill, name: file.value.drill.name })
  if (told.length) ElMessage({ message: told.join(' '), duration: 6000 })
}
function mend(m: Mend) {
  replaceDrill(copyOf(m.drill))
}
function open(other: DrillFile) {
  history.settle()
  file.value = copyOf(other)
  dialog.value = undefined
}

const keys: Record<string, () => unknown> = {
  h: hear,
  m: () => set({ mirror: !part.value.mirror }),
  r: () => set({ reverse: !part.value.reverse }),
  '[': () => rework({ transpose: -1 }),
  ']': () => rework({ transpose: 1 }),
  ',': () => rework({ thicker: 1 }),
  '.': () => rework({ thicker: -1 }),
}
useShortcuts(
  { plain: keys, save, undo: history.undo, redo: history.redo },
  () => dialog.value !== undefined,
)
</script>

<template>
  <div class="bench">
    <div class="head">
      <el-input
        v-model="file.drill.name"
        data-test="drill-name"
        class="name"
        aria-label="Name of the drill"
        :maxlength="limits.Drill.name.maxLength"
        size="large"
      />
      <span class="state small quiet">
        <span data-test="drill-state" :data-of="state">{{ stateWords[state] }}</span>
        <button
          v-if="saved"
          data-test="version"
          type="button"
          class="link"
          @click="dialog = 'history'"
        >
          version {{ saved.version
          }}<template v-if="saved.takes">, {{ count(saved.takes, 'take') }}</template>
        </button>
      </span>
      <BenchTools
        :file="file"
        :part="part"
        :preview="preview"
        :bpm="hearBpm"
        :whom="whomId"
        :can-undo="history.canUndo.value"
        :can-redo="history.canRedo.value"
        :changed="changed"
        :is-new="isNew"
        @undo="history.undo()"
        @redo="history.redo()"
        @press="(key) => keys[key]?.()"
        @free="rework({ free: true })"
        @picked-first="rework({ pickedFirst: true })"
        @open="(which) => (dialog = which)"
        @save="save"
        @save-as-new="saveAsNew"
        @failed="(thrown) => (problem = problemOf(thrown))"
      />
    </div>
    <ul v-if="untouched && offered.length" class="drafts small" aria-label="Begun and not saved">
      <li v-for="d in offered.slice(0, moreDrafts ? undefined : fewDrafts)" :key="d.id">
        Begun and not saved: <b>{{ d.name }}</b>
        <RouterLink data-test="go-on-draft" :to="{ path: '/drills/new', query: { draft: d.id } }"
          >Go on with it</RouterLink
        >
        <button type="button" class="link" @click="drop(d.id, d.name)">Throw away</button>
      </li>
      <li v-if="offered.length > fewDrafts && !moreDrafts">
        <button type="button" class="link" @click="moreDrafts = true">
          and {{ offered.length - fewDrafts }} more
        </button>
      </li>
    </ul>
    <p v-if="faultOf.name" class="small" role="alert">{{ faultOf.name }}</p>
    <ProblemNote v-if="problem ?? previewProblem" :problem="(problem ?? previewProblem)!" />
    <div class="halves">
      <form class="sheet settings" @submit.prevent="save">
        <PartsField
          v-model:chosen="chosen"
          :model-value="file.drill"
          :faults="faultOf"
          @update:model-value="setDrill"
        />
        <FamilyChooser v-model="family" :families="bench.families" />
        <PatternForm
          :model-value="part.pattern"
          :bench="bench"
          :position="part.path.position"
          :fault="faultOf.pattern"
          @update:model-value="(pattern) => set({ pattern })"
        >
          <KeyField
            v-if="part.key"
            :model-value="part.key"
            :scales="bench.scales"
            :thirds="part.pattern.kind === 'triad'"
            :fault="faultOf.key"
            @update:model-value="(key) => set({ key })"
          />
          <FreeField
            v-if="free"
            :model-value="free"
            :whom="whomId"
            @update:model-value="
              (p) =>
                set({
                  pattern: p,
                  path: p.notes.length ? { ...part.path, ...homeOf(p.notes) } : part.path,
                })
            "
            @taken="adopt"
          />
        </PatternForm>
        <details open>
          <summary>Place and path</summary>
          <PathForm
            :model-value="part.path"
            :faults="faultOf"
            :strings="strings"
            :in-key="!!part.key"
            :pattern="part.pattern"
            @update:model-value="(path) => set({ path })"
          />
        </details>
        <details open>
          <summary>Hands and rhythm</summary>
          <HandsForm :model-value="part" :faults="faultOf" @update:model-value="setPart" />
        </details>
        <details>
          <summary data-test="ladder">
            Tempo ladder
            <span class="small quiet figures">{{ ladderWords(file) }}</span>
          </summary>
          <LadderForm
            v-model="file.ladder"
            :faults="faultOf"
            :notes-per-beat="file.drill.rhythm.notesPerBeat"
          />
        </details>
      </form>
      <div class="stack right">
        <HearingBar
          v-model:bpm="hearBpm"
          v-model:click="click"
          v-model:whom="whom"
          :playing="hearing.playing.value"
          :ready="!!preview?.chart"
          :students="people.filter((p) => p.role === 'student')"
          @hear="hear"
          @setup="dialog = 'setup'"
        />
        <PreviewPane
          v-if="drawn ?? preview"
          :preview="(drawn ?? preview)!"
          :faults="faults"
          :playing="hearing.note.value"
          :free="!!free"
          @move="move"
          @finger="setFinger"
          @add="addNote"
          @mend="mend"
          @weigh="dialog = 'setup'"
        />
      </div>
    </div>
    <ConflictDialog
      v-if="theirs"
      :mine="file"
      :theirs="theirs"
      @choose="settle"
      @close="theirs = undefined"
    />
    <AssignDialog
      v-if="dialog === 'assign' && saved"
      :drills="[saved]"
      @close="dialog = undefined"
      @changed="attempt(load)"
    />
    <SetupDialog
      v-if="dialog === 'setup' && whose"
      :person="whose"
      @close="dialog = undefined"
      @changed="lookNow"
    />
    <VariationsDialog
      v-if="dialog === 'variations'"
      :file="file"
      :varieties="preview?.varieties ?? []"
      :whom="whomId"
      @close="dialog = undefined"
      @open="open"
    />
    <HistoryDialog v-if="dialog === 'history'" :id="id" @close="dialog = undefined" @open="open" />
  </div>
</template>

<style scoped>
.bench {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s3);
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2) var(--s3);
}
.name {
  flex: 1 1 240px;
  max-width: 440px;
  font-weight: 700;
}
.drafts {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
.drafts li {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2) var(--s3);
  align-items: baseline;
}
.state {
  flex: 1 1 120px;
}
.state .link {
  margin-left: var(--s2);
}
.halves {
  display: grid;
  grid-template-columns: 368px minmax(0, 1fr);
  gap: var(--s3);
  align-items: start;
}
.settings {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s3);
  padding: var(--s3) var(--s4);
}
details {
  border-top: var(--edge);
  padding-top: var(--s2);
}
summary {
  font-weight: 700;
  cursor: pointer;
  padding-bottom: var(--s2);
}
.right {
  gap: var(--s3);
}
@media (width >= 960px) {
  .settings {
    max-height: calc(100vh - 148px);
    overflow-y: auto;
    position: sticky;
    top: var(--s3);
  }
}
@media (width < 960px) {
  .halves {
    grid-template-columns: minmax(0, 1fr);
  }
  .right {
    order: -1;
  }
}
</style>
