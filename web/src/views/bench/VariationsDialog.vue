<script setup lang="ts">
import { ElButton, ElDialog, ElInput, ElMessage } from 'element-plus'
import { computed, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import { answer, client, type DrillFile, type Variety } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { createBlock } from '../../api/drills'
import { newId } from '../../api/ids'
import ProblemNote from '../../components/ProblemNote.vue'
import { count, lasting } from '../../draw/words'
import ChoiceLine from './ChoiceLine.vue'
import NumberLine from './NumberLine.vue'
import { limits } from '../../api/limits.gen'

/** Makes all variations of a drill the parts of one, or a block. */
const props = defineProps<{ file: DrillFile; varieties: Variety[]; whom?: string }>()
const emit = defineEmits<{ close: []; open: [file: DrillFile] }>()
const router = useRouter()

const names: Record<Variety, string> = {
  fingerOrders: 'all finger orders',
  orders: 'up, down, both, cascade',
  slurs: 'hammer, pull, both',
  strings: 'each string alone',
  positions: 'every second position',
}
const options = computed(() => props.varieties.map((v) => ({ label: names[v], value: v })))
const by = ref(props.varieties[0] ?? 'positions')
const seconds = ref(15)
const name = ref(props.file.drill.name)
const files = ref<DrillFile[]>([])
const left = ref(new Set<number>())
const id = newId() // of the block: a double click makes one
const { problem, attempt } = useAttempt()
const kept = computed(() => files.value.filter((_, i) => !left.value.has(i)))

function vary() {
  return attempt(async () => {
    files.value = await answer(
      client.POST('/variations', {
        body: props.file,
        params: { query: { by: by.value, for: props.whom } },
      }),
    )
    left.value = new Set()
    name.value = `${props.file.drill.name}: ${names[by.value]}`
  })
}
onMounted(vary)
watch(by, vary)

function toggle(i: number) {
  const next = new Set(left.value)
  if (!next.delete(i)) next.add(i)
  left.value = next
}
const block = () => ({
  name: name.value,
  items: kept.value.map((file) => ({ file, seconds: seconds.value })),
})
/** The most parts that a drill has. */
const most = limits.Drill.then.maxItems
/** All as parts of one drill, on the bench. */
function asParts() {
  return attempt(async () => {
    const params = { query: { for: props.whom } }
    emit('open', await answer(client.POST('/join', { body: block(), params })))
  })
}
function save() {
  return attempt(async () => {
    const made = await createBlock(block(), props.whom, id)
    ElMessage({ message: 'Block saved' })
    await router.push(`/blocks/${made.id}`)
  })
}
</script>

<template>
  <el-dialog
    :model-value="true"
    title="All variations"
    width="620"
    top="6vh"
    @close="emit('close')"
  >
    <ProblemNote v-if="problem" :problem="problem" />
    <div class="stack">
      <ChoiceLine v-model="by" name="Variations" label="Vary" :options="options" stacked />
      <NumberLine v-model="seconds" name="Seconds each" :min="5" :max="600" :step="5" />
      <ol>
        <li v-for="(f, i) in files" :key="f.drill.name" :class="{ out: left.has(i) }">
          <label>
            <input type="checkbox" :checked="!left.has(i)" @change="toggle(i)" />
            {{ f.drill.name }}
          </label>
          <button type="button" class="link" @click="emit('open', f)">open</button>
        </li>
      </ol>
      <label class="name">
        <span>Name</span>
        <el-input
          v-model="name"
          :maxlength="limits.Drill.name.maxLength"
          aria-label="Name of it all"
        />
      </label>
    </div>
    <template #footer>
      <span class="grow small quiet" data-test="block-facts">
        {{ count(kept.length, 'drill') }}, {{ lasting(kept.length * seconds) }}
      </span>
      <el-button data-test="save-as-block" :disabled="kept.length === 0" @click="save"
        >Save as a block</el-button
      >
      <el-button
        data-test="as-parts"
        type="primary"
        :disabled="kept.length === 0 || kept.length > most"
        @click="asParts"
        >One drill of parts</el-button
      >
    </template>
  </el-dialog>
</template>

<style scoped>
ol {
  margin: 0;
  padding: 0 0 0 30px;
  max-height: 260px;
  overflow-y: auto;
  columns: 2;
}
li {
  break-inside: avoid;
}
.out label {
  text-decoration: line-through;
  color: var(--ink-2);
}
.link {
  color: var(--ink-2);
  font-size: var(--t-small);
}
.name {
  display: grid;
  gap: var(--s1);
}
.grow {
  text-align: left;
}
@media (width < 600px) {
  ol {
    columns: 1;
  }
}
</style>
