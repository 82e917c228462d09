<script setup lang="ts">
import { ElButton, ElMessage, ElMessageBox } from 'element-plus'
import { onMounted, ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'

import { answer, client, problemOf, type Problem, type SavedDrill } from '../../api/client'
import AssignDialog from '../../components/AssignDialog.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import { count, ladderWords, pathWords, patternWords } from '../../draw/words'

const router = useRouter()
const drills = ref<SavedDrill[]>()
const problem = ref<Problem>()
const assigning = ref<SavedDrill>()

async function attempt(action: () => Promise<unknown>) {
  problem.value = undefined
  try {
    await action()
    drills.value = await answer(client.GET('/drills'))
  } catch (thrown) {
    problem.value = problemOf(thrown)
  }
}
onMounted(() => attempt(async () => {}))

function copy(d: SavedDrill) {
  return attempt(async () => {
    const made = await answer(
      client.POST('/drills/{drillId}/copy', { params: { path: { drillId: d.id } } }),
    )
    ElMessage({ message: `Copied as “${made.file.drill.name}”`, grouping: true })
  })
}

async function remove(d: SavedDrill) {
  const has = d.students.length > 0 ? ` It is taken back from ${d.students.join(', ')}.` : ''
  const kept =
    d.takes > 0 ? ` ${count(d.takes, 'take')} made of it ${d.takes === 1 ? 'is' : 'are'} kept.` : ''
  try {
    await ElMessageBox.confirm(`Delete “${d.file.drill.name}”?${has}${kept}`, 'Delete drill', {
      confirmButtonText: 'Delete',
      cancelButtonText: 'Keep',
    })
  } catch {
    return // kept
  }
  await attempt(() =>
    answer(client.DELETE('/drills/{drillId}', { params: { path: { drillId: d.id } } })),
  )
}
</script>

<template>
  <div class="stack">
    <div class="row">
      <h1 class="grow">Drills</h1>
      <el-button type="primary" @click="router.push('/drills/new')">New drill</el-button>
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <div v-if="drills?.length" class="sheet list">
      <article v-for="d in drills" :key="d.id">
        <div class="what">
          <h2>
            <RouterLink :to="`/drills/${d.id}`">{{ d.file.drill.name }}</RouterLink>
          </h2>
          <p class="quiet">{{ patternWords(d.file.drill) }}</p>
          <p class="quiet small">{{ pathWords(d.file.drill) }}</p>
        </div>
        <dl>
          <div>
            <dt>Tempo</dt>
            <dd>{{ ladderWords(d) }}</dd>
            <dd class="quiet small">{{ count(d.file.drill.notesPerBeat, 'note') }} a beat</dd>
          </div>
          <div>
            <dt>Students</dt>
            <dd>{{ d.students.join(', ') || 'nobody yet' }}</dd>
          </div>
          <div>
            <dt>Takes</dt>
            <dd class="figures">{{ d.takes }}</dd>
          </div>
        </dl>
        <div class="row actions">
          <el-button @click="assigning = d">Assign</el-button>
          <el-button @click="copy(d)">Copy</el-button>
          <el-button @click="remove(d)">Delete</el-button>
        </div>
      </article>
    </div>
    <div v-else-if="drills" class="sheet stack">
      <h2>No drill yet</h2>
      <p>
        A drill takes a minute: choose fingers, strings and a position, and look at it on the neck.
      </p>
      <div>
        <el-button type="primary" @click="router.push('/drills/new')"
          >Make the first drill</el-button
        >
      </div>
    </div>
    <AssignDialog
      v-if="assigning"
      :drill="assigning"
      @close="assigning = undefined"
      @changed="attempt(async () => {})"
    />
  </div>
</template>

<style scoped>
.list {
  padding: 0 var(--s4);
}
article {
  display: grid;
  grid-template-columns: minmax(240px, 5fr) minmax(300px, 6fr) auto;
  gap: var(--s2) var(--s5);
  align-items: center;
  padding: var(--s4) 0;
  border-bottom: var(--edge);
}
article:last-child {
  border-bottom: 0;
}
dl {
  margin: 0;
  display: grid;
  grid-template-columns: 3fr 3fr 1fr;
  gap: var(--s3);
}
dt {
  font-size: var(--t-small);
  color: var(--ink-2);
}
dd {
  margin: 0;
}
.actions {
  gap: var(--s2);
  justify-content: flex-end;
}
@media (width < 1100px) {
  article {
    grid-template-columns: 1fr;
  }
  .actions {
    justify-content: flex-start;
  }
}
@media (width < 600px) {
  dl {
    grid-template-columns: 4fr 4fr 2fr;
  }
}
</style>
