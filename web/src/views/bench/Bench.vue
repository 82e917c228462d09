<script setup lang="ts">
import { useStorage, watchDebounced } from '@vueuse/core'
import { ElButton, ElInput, ElMessage } from 'element-plus'
import { computed, onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import {
  answer,
  client,
  problemOf,
  type DrillFile,
  type Preview,
  type Problem,
  type SavedDrill,
} from '../../api/client'
import AssignDialog from '../../components/AssignDialog.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import { count } from '../../draw/words'
import { copyOf, freshDrill } from './fresh'
import LadderForm from './LadderForm.vue'
import PathForm from './PathForm.vue'
import PatternForm from './PatternForm.vue'
import PreviewPane from './PreviewPane.vue'

const route = useRoute()
const router = useRouter()
const id = String(route.params.id)
const isNew = id === 'new'

// What is being set stays in the browser until it is saved: a reload loses nothing.
const draft = useStorage<DrillFile | null>(`manudrill bench ${id}`, null, sessionStorage, {
  serializer: { read: JSON.parse, write: JSON.stringify },
})
const file = ref<DrillFile>(draft.value ?? freshDrill())
const saved = ref<SavedDrill>()
const preview = ref<Preview>()
const problem = ref<Problem>()
const assigning = ref(false)

const changed = computed(
  () => isNew || (saved.value && JSON.stringify(saved.value.file) !== JSON.stringify(file.value)),
)
const faults = computed(() =>
  Object.fromEntries((preview.value?.faults ?? []).map((f) => [f.field, f.text])),
)

async function attempt(action: () => Promise<unknown>) {
  problem.value = undefined
  try {
    await action()
  } catch (thrown) {
    problem.value = problemOf(thrown)
  }
}

let asked = 0
async function look() {
  const mine = ++asked
  await attempt(async () => {
    const got = await answer(client.POST('/preview', { body: file.value }))
    if (mine === asked) preview.value = got // an older answer must not replace a newer
  })
}

onMounted(async () => {
  if (!isNew)
    await attempt(async () => {
      saved.value = await answer(
        client.GET('/drills/{drillId}', { params: { path: { drillId: id } } }),
      )
      if (!draft.value) file.value = copyOf(saved.value.file)
    })
  if (!problem.value) await look()
})
watchDebounced(
  file,
  async () => {
    draft.value = file.value
    await look()
  },
  { debounce: 60, deep: true },
)

function save() {
  return attempt(async () => {
    if (isNew) {
      const made = await answer(client.POST('/drills', { body: file.value }))
      draft.value = null
      ElMessage({ message: 'Drill saved' })
      await router.replace(`/drills/${made.id}`)
      return
    }
    saved.value = await answer(
      client.PUT('/drills/{drillId}', { params: { path: { drillId: id } }, body: file.value }),
    )
    draft.value = null
    ElMessage({ message: 'Drill saved' })
  })
}

/** Goes back to the drill as it was saved. */
function revert() {
  if (saved.value) file.value = copyOf(saved.value.file)
}

async function reload() {
  saved.value = await answer(client.GET('/drills/{drillId}', { params: { path: { drillId: id } } }))
}
</script>

<template>
  <div class="bench">
    <div class="head row">
      <el-input
        v-model="file.drill.name"
        class="name"
        aria-label="Name of the drill"
        maxlength="120"
        size="large"
      />
      <span class="state small quiet">
        <template v-if="isNew">not saved yet</template>
        <template v-else-if="changed">changed, not saved</template>
        <template v-else-if="saved">saved</template>
        <template v-if="saved?.takes">
          · {{ count(saved.takes, 'take') }} made of it,
          {{ saved.takes === 1 ? 'which keeps its' : 'which keep their' }} own chart
        </template>
      </span>
      <el-button v-if="!isNew && changed" @click="revert">Undo all changes</el-button>
      <el-button v-if="!isNew && !changed" @click="assigning = true">Assign</el-button>
      <el-button type="primary" :disabled="!changed" @click="save">Save</el-button>
    </div>
    <p v-if="faults.name" class="small" role="alert">{{ faults.name }}</p>
    <ProblemNote v-if="problem" :problem="problem" />
    <div class="halves">
      <form class="sheet stack" @submit.prevent="save">
        <PatternForm v-model="file.drill.pattern" :fault="faults.pattern" />
        <PathForm v-model="file.drill" :faults="faults" :strings="6" />
        <LadderForm v-model="file.ladder" :faults="faults" />
      </form>
      <PreviewPane v-if="preview" :preview="preview" />
    </div>
    <AssignDialog
      v-if="assigning && saved"
      :drill="saved"
      @close="assigning = false"
      @changed="attempt(reload)"
    />
  </div>
</template>

<style scoped>
.bench {
  display: grid;
  gap: var(--s4);
}
.head {
  gap: var(--s3);
}
.name {
  flex: 1 1 260px;
  max-width: 480px;
  font-weight: 700;
}
.state {
  flex: 1;
}
.halves {
  display: grid;
  grid-template-columns: 372px minmax(0, 1fr);
  gap: var(--s4);
  align-items: start;
}
@media (width < 960px) {
  .halves {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
