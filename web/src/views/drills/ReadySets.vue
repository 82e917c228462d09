<script setup lang="ts">
import { ElButton } from 'element-plus'

import type { Bench, Drill, ReadySet } from '../../api/client'
import { pathWords, patternWords } from '../../draw/words'

/** The sets that ship: to be put on the bench one by one, or kept whole. */
defineProps<{ bench: Bench }>()
const emit = defineEmits<{ open: [drill: Drill]; keep: [set: ReadySet]; block: [set: ReadySet] }>()
</script>

<template>
  <section v-for="set in bench.readySets" :key="set.id" class="sheet">
    <div class="row">
      <div class="grow">
        <h2>{{ set.name }}</h2>
        <p class="quiet">{{ set.about }}</p>
      </div>
      <el-button @click="emit('keep', set)">Keep all as drills</el-button>
      <el-button @click="emit('block', set)">Keep as one block</el-button>
    </div>
    <ul>
      <li v-for="d in set.drills" :key="d.name">
        <button
          data-test="ready"
          :data-of="d.name"
          type="button"
          class="link"
          @click="emit('open', d)"
        >
          {{ d.name }}
        </button>
        <span class="small quiet">{{ patternWords(d) }}. {{ pathWords(d) }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin-top: var(--s3);
  columns: 2;
  column-gap: var(--s5);
}
li {
  display: grid;
  break-inside: avoid;
  padding: 4px 0;
  border-top: var(--edge);
}
.link {
  justify-self: start;
  font-weight: 600;
  color: var(--ink);
  text-decoration-color: var(--line-2);
}
@media (width < 700px) {
  ul {
    columns: 1;
  }
}
</style>
