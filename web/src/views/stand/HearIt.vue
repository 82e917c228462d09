<script setup lang="ts">
import { ElButton, ElCheckbox, ElInputNumber } from 'element-plus'
import { ref, watch } from 'vue'

import { problemOf, type Problem, type Stand } from '../../api/client'
import type { StandCore } from '../../audio/standCore'
import { useModel } from './model'
import { limits } from '../../api/limits.gen'

/** The drill as it should sound, at the tempo of the rung or another. */
const props = defineProps<{ stand: Stand; core: StandCore; ready: boolean }>()
const emit = defineEmits<{ note: [note: number | undefined]; problem: [problem: Problem] }>()

const { playing, note, hear, stop } = useModel(props.core)
const bpm = ref<number>()
const click = ref(false)
watch(note, (now) => emit('note', now))

async function go() {
  if (playing.value) return stop()
  try {
    await hear(props.stand, bpm.value ?? props.stand.chart.bpm, click.value)
  } catch (thrown) {
    emit('problem', problemOf(thrown))
  }
}
defineExpose({ go: () => props.ready && go() })
</script>

<template>
  <form class="row" @submit.prevent="go">
    <el-button native-type="submit" :disabled="!ready">{{
      playing ? 'Stop' : 'Hear it'
    }}</el-button>
    <kbd>l</kbd> at
    <el-input-number
      v-model="bpm"
      :min="limits.Rung.bpm.min"
      :max="limits.Rung.bpm.max"
      :placeholder="`${stand.chart.bpm}`"
      controls-position="right"
      aria-label="Tempo to hear it at, bpm"
    />
    bpm <el-checkbox v-model="click" label="with click" />
  </form>
</template>
