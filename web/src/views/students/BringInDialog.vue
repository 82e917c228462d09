<script setup lang="ts">
import { ElDialog } from 'element-plus'
import { ref } from 'vue'

import BringIn from '../../components/BringIn.vue'
import PaperLog from './PaperLog.vue'

/** What was kept before, or elsewhere, is brought in. */
const emit = defineEmits<{ close: []; brought: [] }>()
const from = ref<'paper' | 'elsewhere'>('paper')
</script>

<template>
  <el-dialog :model-value="true" title="Bring in" width="820" top="6vh" @close="emit('close')">
    <div class="stack">
      <div class="chips" role="group" aria-label="What is brought in">
        <button
          data-test="paper-log"
          type="button"
          class="chip"
          :aria-pressed="from === 'paper'"
          @click="from = 'paper'"
        >
          A log kept on paper
        </button>
        <button
          type="button"
          class="chip"
          :aria-pressed="from === 'elsewhere'"
          @click="from = 'elsewhere'"
        >
          A student from elsewhere
        </button>
      </div>
      <PaperLog v-if="from === 'paper'" @done="emit('close')" />
      <BringIn v-else @brought="emit('brought')">Take the ZIP file of a student</BringIn>
    </div>
  </el-dialog>
</template>

<style scoped>
@import '../bench/form.css';
</style>
