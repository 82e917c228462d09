<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'

import { useAttempt } from '../../api/attempt'
import { answer, client, Problem, type Remeasuring } from '../../api/client'
import ProblemNote from '../../components/ProblemNote.vue'
import { count } from '../../draw/words'

/** Lets all takes be measured again, and tells how far that is. */
const now = ref<Remeasuring>()
const { problem, attempt } = useAttempt()
const running = computed(() => !!now.value && !now.value.endedAt)
let timer: ReturnType<typeof setTimeout> | undefined

async function look() {
  clearTimeout(timer)
  try {
    now.value = await answer(client.GET('/remeasuring'))
  } catch (thrown) {
    if (!(thrown instanceof Problem) || thrown.status !== 404) throw thrown // never done yet
  }
  if (running.value) timer = setTimeout(() => void attempt(look), 1000)
}
onMounted(() => attempt(look))
onBeforeUnmount(() => clearTimeout(timer))

function begin() {
  return attempt(async () => {
    await answer(client.POST('/remeasuring'))
    await look()
  })
}
function cancel() {
  return attempt(async () => {
    await answer(client.DELETE('/remeasuring'))
    await look()
  })
}
const words = computed(() => {
  const r = now.value
  if (!r) return 'After an update of the listener, all takes can be measured again.'
  const failed = r.failed ? `, ${count(r.failed, 'take')} could not be` : ''
  if (!r.endedAt) return `Measuring again: ${r.done} of ${count(r.total, 'take')}${failed}`
  return `${r.cancelled ? 'Cancelled after' : 'Measured again:'} ${count(r.done, 'take')}${failed}.`
})
</script>

<template>
  <div class="row all">
    <ProblemNote v-if="problem" :problem="problem" />
    <span class="small quiet grow" role="status">{{ words }}</span>
    <progress v-if="running" :value="now?.done" :max="now?.total" aria-label="Measured again" />
    <el-button v-if="running" @click="cancel">Cancel</el-button>
    <el-button v-else @click="begin">Measure all again</el-button>
  </div>
</template>

<style scoped>
.all {
  border-top: var(--edge);
  padding-top: var(--s3);
}
.all .grow {
  flex: 1 1 220px;
}
progress {
  accent-color: var(--ink);
}
</style>
