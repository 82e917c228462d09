<script setup lang="ts">
import { ElButton } from 'element-plus'

import type { Problem } from '../api/client'
import ProblemNote from './ProblemNote.vue'

/** What went wrong; where somebody has changed the same meanwhile, theirs or one's own is kept. */
defineProps<{ problem: Problem }>()
const emit = defineEmits<{ settle: [keepMine: boolean] }>()
</script>

<template>
  <ProblemNote :problem="problem">
    <template v-if="problem.status === 412">
      <el-button @click="emit('settle', false)">Show what is there now</el-button>
      <el-button @click="emit('settle', true)">Keep what I have set</el-button>
    </template>
  </ProblemNote>
</template>
