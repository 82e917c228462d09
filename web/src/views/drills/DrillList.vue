<script setup lang="ts">
import { ElButton, ElInput, ElMessage } from 'element-plus'
import { computed, onMounted, ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'

import {
  answer,
  client,
  isChanged,
  type Bench,
  type Binned,
  type Drill,
  type DrillFile,
  type ImportedDrill,
  type ReadySet,
  type SavedBlock,
  type SavedDrill,
  type Shelf,
} from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { binned, bringBack, bringBackBlock, bringBackDrill } from '../../api/bin'
import {
  allBlocks,
  allDrills,
  createBlock,
  keepIn,
  importDrill,
  putOnShelf,
} from '../../api/drills'
import { newId } from '../../api/ids'
import { catalogue } from '../../bench/catalogue'
import { putDraft } from '../../bench/drafts'
import { found, foldersOf, tagsOf, type Section } from '../../bench/library'
import AssignDialog from '../../components/AssignDialog.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import { undoable } from '../../components/undo'
import { count, lasting } from '../../draw/words'
import { layOut } from '../print/sheet'
import BinList from './BinList.vue'
import ImportDialog from './ImportDialog.vue'
import DrillRow from './DrillRow.vue'
import ReadySets from './ReadySets.vue'
import ShelfDialog from './ShelfDialog.vue'

const router = useRouter()
const drills = ref<SavedDrill[]>()
const blocks = ref<SavedBlock[]>([])
const bin = ref<Binned[]>([])
const bench = ref<Bench>()
const assigning = ref<SavedDrill[]>()
const shelving = ref<SavedDrill>()

const section = ref<Section | { kind: 'blocks' | 'ready' | 'bin' }>({ kind: 'all' })
const search = ref('')
const tags = ref<string[]>([])
const chosen = ref(new Set<string>())

const all = computed(() => drills.value ?? [])
const folders = computed(() => foldersOf(all.value))
const allTags = computed(() => tagsOf(all.value))
const listed = computed(() => !['blocks', 'ready', 'bin'].includes(section.value.kind))
const shown = computed(() =>
  listed.value ? found(all.value, section.value as Section, tags.value, search.value) : [],
)

const { problem, attempt } = useAttempt()
/** Does something to the library, then looks at it again. */
function change(action: () => Promise<unknown>) {
  return attempt(async () => {
    await action()
    ;[drills.value, blocks.value, bin.value] = await Promise.all([
      allDrills(),
      allBlocks(),
      binned(),
    ])
  })
}
onMounted(() =>
  change(async () => {
    bench.value = await catalogue()
  }),
)

function is(kind: string, folder?: string): boolean {
  return (
    section.value.kind === kind &&
    (section.value.kind !== 'folder' || section.value.folder === folder)
  )
}
function toggleTag(t: string) {
  tags.value = tags.value.includes(t) ? tags.value.filter((u) => u !== t) : [...tags.value, t]
}
function choose(d: SavedDrill, on: boolean) {
  const next = new Set(chosen.value)
  if (on) next.add(d.id)
  else next.delete(d.id)
  chosen.value = next
}
function printOut(which: SavedDrill[]) {
  layOut(which.map((d) => ({ file: d.file })))
  return router.push('/print')
}
function command(d: SavedDrill, what: 'copy' | 'shelf' | 'print' | 'everybody' | 'delete') {
  if (what === 'copy') return copy(d)
  if (what === 'print') return printOut([d])
  if (what === 'everybody') return router.push(`/drills/${d.id}/everybody`)
  if (what === 'delete') return remove(d)
  shelving.value = d
}
function copy(d: SavedDrill) {
  return change(async () => {
    const params = { path: { drillId: d.id }, query: { id: newId() } }
    const made = await answer(client.POST('/drills/{drillId}/copy', { params }))
    ElMessage({ message: `Copied as “${made.file.drill.name}”`, grouping: true })
  })
}
function put(d: SavedDrill, shelf: Shelf) {
  shelving.value = undefined
  return change(async () => {
    try {
      await putOnShelf(d, shelf)
    } catch (thrown) {
      if (!isChanged(thrown)) throw thrown
      const text = `“${d.name}” was put elsewhere meanwhile; it is shown as it stands now.`
      ElMessage({ message: text, duration: 8000 })
    }
  })
}
async function remove(d: SavedDrill) {
  await change(() =>
    answer(client.DELETE('/drills/{drillId}', { params: { path: { drillId: d.id } } })),
  )
  if (problem.value) return
  const from = d.students.length > 0 ? ` and withdrawn from ${d.students.join(', ')}` : ''
  undoable(`“${d.name}” is deleted${from}.`, () => change(() => bringBackDrill(d.id)))
}
async function removeBlock(b: SavedBlock) {
  await change(() =>
    answer(client.DELETE('/blocks/{blockId}', { params: { path: { blockId: b.id } } })),
  )
  if (!problem.value)
    undoable(`The block “${b.block.name}” is deleted.`, () => change(() => bringBackBlock(b.id)))
}

/** Puts a drill on the bench as a new one, beside others that are not saved yet. */
async function putOnBench(file: DrillFile, told: string[] = []) {
  const draft = putDraft(file)
  if (told.length) ElMessage({ message: told.join(' '), duration: 9000 })
  await router.push({ path: '/drills/new', query: { draft } })
}
function ready(drill: Drill): DrillFile {
  if (!bench.value) throw new Error('the bench is not known yet')
  return { drill, ladder: bench.value.usual }
}
function keepSet(set: ReadySet) {
  return change(async () => {
    await keepIn(set.name, set.drills.map(ready))
    section.value = { kind: 'folder', folder: set.name }
  })
}
function keepBlock(set: ReadySet) {
  return change(async () => {
    const items = set.drills.map((drill) => ({ file: ready(drill), seconds: 60 }))
    const made = await createBlock({ name: set.name, items })
    await router.push(`/blocks/${made.id}`)
  })
}

const input = ref<HTMLInputElement>()
function importFile(taken: File | undefined) {
  if (!taken) return
  return attempt(async () => {
    const read = await importDrill(taken)
    if (read.lines.length > 1 || read.lastBar < read.bars) importing.value = { taken, read }
    else await putOnBench(read.file, read.told)
  })
}
const importing = ref<{ taken: File; read: ImportedDrill }>()
function putImported(read: ImportedDrill) {
  importing.value = undefined
  return putOnBench(read.file, read.told)
}
function picked(event: Event) {
  const from = event.target as HTMLInputElement
  void importFile(from.files?.[0])
  from.value = '' // the same file may be picked again
}
</script>

<template>
  <div class="stack" @dragover.prevent @drop.prevent="importFile($event.dataTransfer?.files[0])">
    <div class="row">
      <h1 class="grow">Drills</h1>
      <el-input
        v-model="search"
        data-test="search"
        class="search"
        placeholder="Search"
        aria-label="Search the drills"
        clearable
      />
      <el-button data-test="import" @click="input?.click()">Import a file</el-button>
      <el-button data-test="new-drill" type="primary" @click="router.push('/drills/new')"
        >New drill</el-button
      >
      <input
        ref="input"
        type="file"
        accept=".musicxml,.xml,.mxl,.mid,.midi,.txt,.tab,.json"
        hidden
        @change="picked"
      />
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <div v-if="drills" class="library">
      <nav aria-label="Shelves">
        <button
          data-test="shelf"
          :data-of="'all'"
          type="button"
          :aria-pressed="is('all')"
          @click="section = { kind: 'all' }"
        >
          All <span class="figures">{{ all.length }}</span>
        </button>
        <button
          data-test="shelf"
          :data-of="'favourites'"
          type="button"
          :aria-pressed="is('favourites')"
          @click="section = { kind: 'favourites' }"
        >
          Favourites <span class="figures">{{ all.filter((d) => d.shelf.favourite).length }}</span>
        </button>
        <button
          v-for="f in folders"
          :key="f.folder"
          data-test="shelf"
          :data-of="f.folder"
          type="button"
          class="folder"
          :aria-pressed="is('folder', f.folder)"
          @click="section = { kind: 'folder', folder: f.folder }"
        >
          {{ f.folder }} <span class="figures">{{ f.count }}</span>
        </button>
        <button
          data-test="shelf"
          :data-of="'blocks'"
          type="button"
          :aria-pressed="is('blocks')"
          @click="section = { kind: 'blocks' }"
        >
          Blocks <span class="figures">{{ blocks.length }}</span>
        </button>
        <button
          data-test="shelf"
          :data-of="'ready'"
          type="button"
          :aria-pressed="is('ready')"
          @click="section = { kind: 'ready' }"
        >
          Ready-made <span class="figures">{{ bench?.readySets.length }}</span>
        </button>
        <button
          data-test="shelf"
          :data-of="'bin'"
          type="button"
          :aria-pressed="is('bin')"
          @click="section = { kind: 'bin' }"
        >
          Bin <span class="figures">{{ bin.length }}</span>
        </button>
      </nav>
      <div class="stack">
        <div v-if="listed && (allTags.length || chosen.size)" class="row tags">
          <button
            v-for="t in allTags"
            :key="t"
            type="button"
            :aria-pressed="tags.includes(t)"
            @click="toggleTag(t)"
          >
            {{ t }}
          </button>
          <span class="grow" />
          <el-button
            v-if="chosen.size"
            size="small"
            @click="assigning = all.filter((d) => chosen.has(d.id))"
            >Assign {{ count(chosen.size, 'drill') }}</el-button
          >
          <el-button
            v-if="chosen.size"
            size="small"
            @click="printOut(all.filter((d) => chosen.has(d.id)))"
            >Print {{ count(chosen.size, 'drill') }}</el-button
          >
        </div>
        <div v-if="shown.length" class="sheet list">
          <DrillRow
            v-for="d in shown"
            :key="d.id"
            :drill="d"
            :chosen="chosen.has(d.id)"
            @update:chosen="(on) => choose(d, on)"
            @assign="assigning = [d]"
            @favourite="put(d, { ...d.shelf, favourite: !d.shelf.favourite })"
            @command="(what) => command(d, what)"
          />
        </div>
        <div v-else-if="listed && all.length" class="sheet">
          <p data-test="none-found">
            No drill has all of this. Search for less, or look on another shelf.
          </p>
        </div>
        <div v-else-if="listed" class="sheet stack">
          <h2 data-test="no-drills">No drill yet</h2>
          <p>
            A drill takes a minute: choose a family, fingers and strings, and look at it on the
            neck. Or begin with a ready-made set.
          </p>
          <div class="row">
            <el-button type="primary" @click="router.push('/drills/new')"
              >Make the first drill</el-button
            >
            <el-button @click="section = { kind: 'ready' }">Look at the ready-made sets</el-button>
          </div>
        </div>
        <template v-if="is('blocks')">
          <div v-if="blocks.length" class="sheet list">
            <article v-for="b in blocks" :key="b.id" class="block">
              <div class="grow">
                <h2>
                  <RouterLink :to="`/blocks/${b.id}`">{{ b.block.name }}</RouterLink>
                </h2>
                <p data-test="block-facts" class="quiet">
                  {{ count(b.block.items.length, 'drill') }},
                  {{ lasting(b.block.items.reduce((sum, i) => sum + i.seconds, 0)) }}
                </p>
              </div>
              <el-button @click="removeBlock(b)">Delete</el-button>
            </article>
          </div>
          <div v-else class="sheet">
            <p>
              A block is a few drills one after the other, each for a while. Open a drill and make
              all its variations, or keep a ready-made set as one.
            </p>
          </div>
        </template>
        <BinList v-if="is('bin')" :binned="bin" @bring-back="(b) => change(() => bringBack(b))" />
        <ReadySets
          v-if="is('ready') && bench"
          :bench="bench"
          @open="(d) => putOnBench(ready(d))"
          @keep="keepSet"
          @block="keepBlock"
        />
      </div>
    </div>
    <AssignDialog
      v-if="assigning"
      :drills="assigning"
      @close="assigning = undefined"
      @changed="change(async () => {})"
    />
    <ImportDialog
      v-if="importing"
      :file="importing.taken"
      :first="importing.read"
      @close="importing = undefined"
      @chosen="putImported"
    />
    <ShelfDialog
      v-if="shelving"
      :drill="shelving"
      :folders="folders.map((f) => f.folder)"
      :tags="allTags"
      @close="shelving = undefined"
      @put="(shelf) => put(shelving!, shelf)"
    />
  </div>
</template>

<style scoped>
.search {
  width: 240px;
}
.library {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr);
  gap: var(--s4);
  align-items: start;
}
nav {
  display: grid;
  gap: 2px;
}
nav button {
  display: flex;
  justify-content: space-between;
  gap: var(--s2);
  border: 0;
  border-left: 3px solid transparent;
  background: none;
  padding: 6px 10px;
  font: inherit;
  font-weight: 600;
  color: var(--ink-2);
  text-align: left;
  cursor: pointer;
}
nav button span {
  font-weight: 400;
}
nav button:hover {
  color: var(--ink);
}
nav button[aria-pressed='true'] {
  color: var(--ink);
  border-left-color: var(--ink);
  background: var(--sheet);
}
.folder {
  padding-left: 22px;
}
.tags {
  gap: var(--s2);
}
.tags > button:not(.el-button) {
  border: 1px solid var(--line-2);
  border-radius: 99px;
  background: var(--sheet);
  color: var(--ink-2);
  padding: 2px 11px;
  font-size: var(--t-small);
  cursor: pointer;
}
.tags > button[aria-pressed='true'] {
  background: var(--ink);
  border-color: var(--ink);
  color: var(--sheet);
}
.list {
  padding: 0 var(--s4);
}
.block {
  display: flex;
  align-items: center;
  gap: var(--s3);
  padding: var(--s3) 0;
  border-bottom: var(--edge);
}
.block:last-child {
  border-bottom: 0;
}
@media (width < 800px) {
  .library {
    grid-template-columns: minmax(0, 1fr);
  }
  nav {
    display: flex;
    flex-wrap: wrap;
  }
  nav button,
  nav .folder {
    padding: 4px 8px;
    border-left: 0;
    border-bottom: 3px solid transparent;
  }
  nav button[aria-pressed='true'] {
    border-bottom-color: var(--ink);
  }
  .search {
    width: 100%;
  }
}
</style>
