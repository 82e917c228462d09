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
  type SavedDrill,
} from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { createDrill, keepIn } from '../../api/drills'
import { newId } from '../../api/ids'
import { putInto } from '../../bench/history'
import AssignDialog from '../../components/AssignDialog.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import TabView from '../../components/TabView.vue'
import { count, lasting, pathWords, patternWords } from '../../draw/words'
import { layOut } from '../print/sheet'

/** A block: its drills one after the other, as they are played. */
const id = String(useRoute().params.id)
const router = useRouter()
const saved = ref<SavedBlock>()
const previews = ref<Preview[]>([])
const { problem, attempt } = useAttempt()

onMounted(() =>
  attempt(async () => {
    saved.value = await answer(
      client.GET('/blocks/{blockId}', { params: { path: { blockId: id } } }),
    )
    for (const { file } of saved.value.block.items)
      previews.value.push(await answer(client.POST('/preview', { body: file })))
  }),
)
const items = computed(() => saved.value?.block.items ?? [])
const seconds = computed(() => items.value.reduce((sum, i) => sum + i.seconds, 0))

function print() {
  layOut(items.value.map((i) => i.file))
  return router.push('/print')
}
function open(file: DrillFile) {
  putInto('manudrill bench new', file)
  return router.push('/drills/new')
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
          <h1>{{ saved.block.name }}</h1>
          <p class="quiet">
            {{ count(items.length, 'drill') }}, {{ lasting(seconds) }} ·
            <RouterLink to="/drills">all drills</RouterLink>
          </p>
        </div>
        <el-button @click="assign">Assign</el-button>
        <el-button @click="join">One drill without a stop</el-button>
        <el-button @click="keep(items.map((i) => i.file))">Keep all as drills</el-button>
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
          <span class="figures">{{ lasting(item.seconds) }}</span>
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
.number {
  font-size: var(--t-head);
  min-width: 34px;
}
</style>
