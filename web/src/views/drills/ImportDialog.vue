<script setup lang="ts">
import { ElButton, ElDialog } from 'element-plus'
import { ref } from 'vue'

import { useAttempt } from '../../api/attempt'
import type { ImportedDrill } from '../../api/client'
import { importDrill } from '../../api/drills'
import ProblemNote from '../../components/ProblemNote.vue'
import { count } from '../../draw/words'
import NumberLine from '../bench/NumberLine.vue'

/** What of a file becomes a drill, where it holds more than one line or more bars than fit. */
const props = defineProps<{ file: File; first: ImportedDrill }>()
const emit = defineEmits<{ close: []; chosen: [drill: ImportedDrill] }>()

const read = ref(props.first)
const line = ref(props.first.line)
const firstBar = ref(props.first.firstBar)
const lastBar = ref(props.first.lastBar)
const { problem, busy, once } = useAttempt()

/** Another line is read as far as it fits, and shows which bars those are. */
const readLine = () =>
  once(async () => {
    read.value = await importDrill(props.file, { line: line.value })
    firstBar.value = read.value.firstBar
    lastBar.value = read.value.lastBar
  })
const choose = () =>
  once(async () => {
    const reading = { line: line.value, firstBar: firstBar.value, lastBar: lastBar.value }
    emit('chosen', await importDrill(props.file, reading))
  })
</script>

<template>
  <el-dialog :model-value="true" :title="`From ${file.name}`" width="520" @close="emit('close')">
    <form class="stack" @submit.prevent="choose">
      <ProblemNote v-if="problem" :problem="problem" />
      <label v-if="read.lines.length > 1" class="lines">
        <span class="small quiet">Which line of the file</span>
        <select
          v-model="line"
          :disabled="busy"
          aria-label="Which line of the file"
          @change="readLine"
        >
          <option v-for="(l, i) in read.lines" :key="i" :value="i">
            {{ l.name }}, {{ count(l.notes, 'note') }}
          </option>
        </select>
      </label>
      <template v-if="read.bars > 1">
        <NumberLine v-model="firstBar" name="From bar" :min="1" :max="read.bars" />
        <NumberLine
          v-model="lastBar"
          data-test="to-bar"
          name="To bar"
          :min="firstBar"
          :max="read.bars"
        />
        <p class="small quiet">The line has {{ count(read.bars, 'bar') }}.</p>
      </template>
      <p v-for="t in read.told" :key="t" class="small">{{ t }}</p>
    </form>
    <template #footer>
      <el-button @click="emit('close')">Cancel</el-button>
      <el-button data-test="put-on-bench" type="primary" :disabled="busy" @click="choose"
        >Put it on the bench</el-button
      >
    </template>
  </el-dialog>
</template>

<style scoped>
.lines {
  display: grid;
  gap: var(--s1);
}
select {
  font: inherit;
  padding: var(--s1) var(--s2);
  border: 1px solid var(--line-2);
  border-radius: var(--round);
  background: var(--sheet);
  color: var(--ink);
  min-height: 34px;
}
</style>
