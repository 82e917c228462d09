<script setup lang="ts">
import { ElButton, ElMessage } from 'element-plus'
import { computed, onMounted, ref } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'

import {
  answer,
  client,
  type DrillFile,
  type Preview,
  type SavedBlock,
  isChanged,
  type SavedDrill,
} from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { changeBlock, createDrill, keepIn } from '../../api/drills'
import { newId } from '../../api/ids'
import { putDraft } from '../../bench/drafts'
import AssignDialog from '../../components/AssignDialog.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import { undoable } from '../../components/undo'
import TabView from '../../components/TabView.vue'
import { count, lasting, pathWords, patternWords } from '../../draw/words'
import { layOut } from '../print/sheet'
import { limits } from '../../api/limits.gen'

/** A block: its drills one after the other, as they are played; what is changed is kept at once. */
const id = String(useRoute().params.id)
const router = useRouter()
const saved = ref<SavedBlock>()
const previews = ref<Preview[]>([])
const { problem, attempt } = useAttempt()

onMounted(() =>
  attempt(async () => {
    await load()
    await look()
  }),
)
async function load() {
  saved.value = await answer(client.GET('/blocks/{blockId}', { params: { path: { blockId: id } } }))
}
/** The previews of drills as they are written; each is asked for once. */
const seen = new Map<string, Preview>()
async function look() {
  const all: Preview[] = []
  for (const { file } of items.value) {
    const key = JSON.stringify(file)
    const preview = seen.get(key) ?? (await answer(client.POST('/preview', { body: file })))
    seen.set(key, preview)
    all.push(preview)
    previews.value = [...all]
  }
}
const items = computed(() => saved.value?.block.items ?? [])
const seconds = computed(() => items.value.reduce((sum, i) => sum + i.seconds, 0))

type Block = SavedBlock['block']
type Item = Block['items'][number]

let takeBack = () => {}
let last: Promise<unknown> = Promise.resolve()
/**
 * Keeps a block as it is changed, one change after another however quickly they are made;
 * what stood before can be had again from the message.
 */
function change(text: string, edit: (block: Block) => Block) {
  last = last.then(() =>
    attempt(async () => {
      const before = saved.value?.block
      if (!before || !(await keepBlock(edit(before)))) return
      // Of two changes only the later can be undone: the block before it is the earlier one's.
      takeBack()
      takeBack = text ? undoable(text, () => undo(before)) : () => {}
    }),
  )
}
function undo(before: Block) {
  const undoing = last.then(() => keepBlock(before))
  last = undoing.catch(() => {}) // the message tells
  return undoing
}
/** Whether it was kept; where somebody else has changed the block it is shown as it stands. */
async function keepBlock(block: Block): Promise<boolean> {
  if (!saved.value) return false
  let kept = true
  try {
    saved.value = await changeBlock(id, saved.value.revision, block)
  } catch (thrown) {
    if (!isChanged(thrown)) throw thrown
    kept = false
    await load()
    ElMessage({
      message:
        'This block was changed elsewhere; here it is as it stands now. Make your change again.',
    })
  }
  await look()
  return kept
}
const withItems = (edit: (items: Item[]) => Item[]) => (b: Block) => ({
  ...b,
  items: edit(b.items),
})
function rename(name: string) {
  if (name.trim() && name !== saved.value?.block.name) change('Renamed', (b) => ({ ...b, name }))
}
function setSeconds(at: number, { target }: Event) {
  const seconds = Math.round(Number((target as HTMLInputElement).value))
  change(
    `Drill ${at + 1} lasts ${lasting(seconds)}`,
    withItems((all) => all.map((item, i) => (i === at ? { ...item, seconds } : item))),
  )
}
function move(at: number, by: 1 | -1) {
  change(
    '',
    withItems((all) => all.toSpliced(at, 1).toSpliced(at + by, 0, ...all.slice(at, at + 1))),
  )
}
function leaveOut(at: number) {
  const name = items.value[at]?.file.drill.name ?? ''
  change(
    `“${name}” left out`,
    withItems((all) => all.toSpliced(at, 1)),
  )
}

function print() {
  layOut(items.value, saved.value?.block.name)
  return router.push('/print')
}
function open(file: DrillFile) {
  return router.push({ path: '/drills/new', query: { draft: putDraft(file) } })
}
/** One drill of the whole block, its drills its parts, on the bench. */
async function joined(): Promise<DrillFile | undefined> {
  const block = saved.value?.block
  return block && answer(client.POST('/join', { body: block }))
}
const join = () =>
  attempt(async () => {
    const file = await joined()
    if (file) await open(file)
  })
/** The block as a drill, once it is assigned; pressed twice, it is one. */
const drill = ref<SavedDrill>()
const drillId = newId()
const assign = () =>
  attempt(async () => {
    const file = await joined()
    if (file) drill.value = await createDrill(file, undefined, drillId)
  })
/** Keeps drills of the block among the drills, in a folder of its name. */
function keep(files: DrillFile[]) {
  const folder = saved.value?.block.name.slice(0, 80) ?? ''
  return attempt(async () => {
    await keepIn(folder, files)
    ElMessage({ message: `Kept: ${count(files.length, 'drill')} in the folder “${folder}”` })
  })
}
</script>

<template>
  <div class="stack">
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="saved">
      <div class="row">
        <div class="grow">
          <input
            data-test="block-name"
            :value="saved.block.name"
            class="name"
            :maxlength="limits.Block.name.maxLength"
            aria-label="Name of the block"
            @change="rename(($event.target as HTMLInputElement).value)"
          />
          <p data-test="block-facts" class="quiet">
            {{ count(items.length, 'drill') }}, {{ lasting(seconds) }} ·
            <RouterLink to="/drills">all drills</RouterLink>
          </p>
        </div>
        <el-button data-test="assign" @click="assign">Assign</el-button>
        <el-button data-test="join" @click="join">One drill without a stop</el-button>
        <el-button data-test="keep-all" @click="keep(items.map((i) => i.file))"
          >Keep all as drills</el-button
        >
        <el-button type="primary" @click="print">Print</el-button>
      </div>
      <section v-for="(item, i) in items" :key="i" class="sheet">
        <div class="row">
          <b class="figures number">{{ i + 1 }}</b>
          <div class="grow">
            <h2>{{ item.file.drill.name }}</h2>
            <p class="small quiet">
              {{ patternWords(item.file.drill) }}. {{ pathWords(item.file.drill) }}
            </p>
          </div>
          <label class="figures seconds">
            <input
              type="number"
              min="5"
              max="3600"
              step="5"
              :value="item.seconds"
              :aria-label="`Seconds of drill ${i + 1}`"
              @change="setSeconds(i, $event)"
            />
            s
          </label>
          <el-button
            data-test="move-up"
            :data-of="i + 1"
            size="small"
            :disabled="i === 0"
            :aria-label="`Move drill ${i + 1} up`"
            @click="move(i, -1)"
            >↑</el-button
          >
          <el-button
            size="small"
            :disabled="i === items.length - 1"
            :aria-label="`Move drill ${i + 1} down`"
            @click="move(i, 1)"
            >↓</el-button
          >
          <el-button
            data-test="leave-out-drill"
            :data-of="i + 1"
            size="small"
            :disabled="items.length === 1"
            :aria-label="`Leave out drill ${i + 1}`"
            @click="leaveOut(i)"
            >Leave out</el-button
          >
          <el-button size="small" @click="open(item.file)">Put on the bench</el-button>
          <el-button size="small" @click="keep([item.file])">Keep as a drill</el-button>
        </div>
        <TabView v-if="previews[i]?.chart" :chart="previews[i]!.chart!" />
        <p v-for="f in previews[i]?.faults" :key="f.text" class="small">{{ f.text }}</p>
      </section>
      <AssignDialog v-if="drill" :drills="[drill]" @close="drill = undefined" />
    </template>
  </div>
</template>

<style scoped>
.sheet {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s2);
}
.name {
  width: min(100%, 560px);
  font: inherit;
  font-size: var(--t-head);
  font-weight: 700;
  padding: 2px 8px;
  border: 1px solid var(--line-2);
  border-radius: var(--round);
  background: var(--sheet);
  color: var(--ink);
}
.seconds input {
  width: 64px;
  font: inherit;
  padding: 3px 6px;
  border: 1px solid var(--line-2);
  border-radius: var(--round);
  background: var(--sheet);
  color: var(--ink);
}
.number {
  font-size: var(--t-head);
  min-width: 34px;
}
</style>
