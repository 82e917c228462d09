<script setup lang="ts">
import { ElButton, ElDialog } from 'element-plus'
import { computed } from 'vue'

import type { DrillFile, SavedDrill } from '../../api/client'
import { differences } from '../../bench/conflict'
import { count, ladderWords, momentOf, pathWords, patternWords } from '../../draw/words'

/** Two have changed the same drill: what each has made of it, and which shall stay. */
const props = defineProps<{ mine: DrillFile; theirs: SavedDrill }>()
const emit = defineEmits<{ choose: [which: 'mine' | 'theirs' | 'copy']; close: [] }>()

const both = computed(() => [
  { title: 'Yours, on this bench', file: props.mine },
  { title: `Saved ${momentOf(props.theirs.changedAt)}`, file: props.theirs.file },
])
const differ = computed(() => differences(props.mine, props.theirs.file))
</script>

<template>
  <el-dialog
    data-test="conflict"
    :model-value="true"
    title="This drill was changed meanwhile"
    width="720"
    @close="emit('close')"
  >
    <p>
      Somebody else, or you in another window, has saved it since you opened it. Nothing of yours is
      saved yet, and nothing is lost.
    </p>
    <p v-if="differ.length">
      The two differ in: <b>{{ differ.join(', ') }}</b>.
    </p>
    <div class="both">
      <section v-for="b in both" :key="b.title">
        <h3>{{ b.title }}</h3>
        <p>
          <b>{{ b.file.drill.name }}</b>
        </p>
        <p class="small">{{ patternWords(b.file.drill) }}</p>
        <p class="small quiet">{{ pathWords(b.file.drill) }}</p>
        <p class="small quiet">
          {{ ladderWords(b.file) }}, {{ count(b.file.drill.rhythm.notesPerBeat, 'note') }} a beat
        </p>
      </section>
    </div>
    <template #footer>
      <el-button data-test="decide-later" @click="emit('close')">Decide later</el-button>
      <el-button data-test="take-saved" @click="emit('choose', 'theirs')"
        >Take what is saved</el-button
      >
      <el-button @click="emit('choose', 'copy')">Save mine as a copy</el-button>
      <el-button data-test="save-over" type="primary" @click="emit('choose', 'mine')"
        >Save mine over it</el-button
      >
    </template>
  </el-dialog>
</template>

<style scoped>
.both {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(240px, 100%), 1fr));
  gap: var(--s4);
  margin-top: var(--s3);
}
section {
  border-top: var(--edge);
  padding-top: var(--s2);
}
h3 {
  font-size: var(--t-small);
  color: var(--ink-2);
}
</style>
