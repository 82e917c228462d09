<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'

import { useAttempt } from '../api/attempt'
import { fileOf, outbox } from '../audio/outbox'
import type { Unsent } from '../audio/unsent'
import { count, momentOf } from '../draw/words'
import { undoable } from './undo'
import ProblemNote from './ProblemNote.vue'

/** The recordings on this device that the server does not have yet. */
const props = defineProps<{ assignmentId?: string }>()
const { problem, attempt } = useAttempt()
const heard = ref<{ id: string; url: string }>()

const takes = computed(() =>
  outbox.all.value.filter((t) => !props.assignmentId || t.assignmentId === props.assignmentId),
)
const headline = computed(() => {
  const n = takes.value.length
  return `${count(n, 'recording')} on this device ${n === 1 ? 'is' : 'are'} not handed in yet`
})

onMounted(() => attempt(outbox.look))
onBeforeUnmount(silence)

function stateOf(t: Unsent): string {
  if (t.refused) return t.refused.detail
  if (t.unkept) return 'is in memory only: leave this page open, or save it as a file'
  if (outbox.sending.value === t.id) return 'is being handed in …'
  if (!t.whole) return 'was broken off; hand it in if it is worth hearing'
  if (outbox.fault.value) return 'waits for the server, and is handed in by itself'
  return 'is handed in next'
}
function silence() {
  if (heard.value) URL.revokeObjectURL(heard.value.url)
  heard.value = undefined
}
async function hear(t: Unsent) {
  silence()
  heard.value = { id: t.id, url: URL.createObjectURL(await fileOf(t)) }
}
async function save(t: Unsent) {
  const url = URL.createObjectURL(await fileOf(t))
  const link = document.createElement('a')
  link.href = url
  link.download = `${t.drillName ?? 'take'} ${t.startedAt.slice(0, 16).replace(/:/g, '.')}.${t.struck ? 'mid' : 'wav'}`
  link.click()
  URL.revokeObjectURL(url)
}
async function discard(t: Unsent) {
  if (heard.value?.id === t.id) silence()
  await outbox.discard(t.id)
  undoable('Recording discarded.', () => outbox.recover(t.id))
}
</script>

<template>
  <section
    v-if="takes.length || problem"
    data-test="unsent"
    :data-of="takes.length"
    class="sheet stack"
    aria-label="Not handed in yet"
  >
    <div>
      <h2>{{ headline }}</h2>
      <p v-if="outbox.fault.value" class="small quiet" role="status">
        {{ outbox.fault.value.title }}. It is tried again by itself; you can go on playing.
      </p>
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <ul>
      <li v-for="t in takes" :key="t.id">
        <div class="grow">
          <b v-if="!assignmentId && t.drillName">{{ t.drillName }}, </b>{{ momentOf(t.startedAt) }},
          {{ t.struck ? count(t.struck.length, 'note') : `${(t.frames / t.rate).toFixed(0)} s` }} at
          {{ t.bpm }} bpm
          <span
            class="small quiet state"
            data-test="unsent-state"
            :data-of="
              t.refused ? 'refused' : t.unkept ? 'in-memory' : t.whole ? 'whole' : 'broken-off'
            "
            >{{ stateOf(t) }}</span
          >
          <audio v-if="heard?.id === t.id" :src="heard.url" controls autoplay />
        </div>
        <el-button
          v-if="!t.whole || t.refused"
          data-test="hand-in"
          type="primary"
          @click="attempt(() => outbox.handIn(t.id))"
          >Hand in</el-button
        >
        <el-button v-if="!t.struck" data-test="hear-unsent" @click="attempt(() => hear(t))"
          >Hear</el-button
        >
        <el-button @click="attempt(() => save(t))">Save as a file</el-button>
        <el-button
          data-test="discard"
          :data-of="t.whole ? 'whole' : 'broken-off'"
          @click="attempt(() => discard(t))"
          >Discard</el-button
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 0;
  display: grid;
  gap: var(--s3);
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2);
}
li .grow {
  flex: 1 1 300px;
}
li :deep(.el-button + .el-button) {
  margin-left: 0;
}
.state {
  display: block;
}
audio {
  display: block;
  margin-top: var(--s2);
  max-width: 100%;
}
</style>
