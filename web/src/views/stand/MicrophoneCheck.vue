<script setup lang="ts">
import { ElButton } from 'element-plus'

import type { InputLevel } from '../../audio/input'
import InputPicture from './InputPicture.vue'
import MicrophoneChoice from './MicrophoneChoice.vue'

/** Which input is heard, and how well, before the first note. */
defineProps<{ input?: InputLevel; stamp: number; busy: boolean }>()
const emit = defineEmits<{ choose: [] }>()
</script>

<template>
  <div class="check">
    <MicrophoneChoice :busy="busy" :allowed="!!input" @choose="emit('choose')">
      <el-button v-if="!input" data-test="check-sound" :disabled="busy" @click="emit('choose')"
        >Check the sound</el-button
      >
    </MicrophoneChoice>
    <InputPicture v-if="input" :input="input" :stamp="stamp" />
    <p v-else data-test="no-input-yet" class="quiet">
      Play a few notes before the first take, to see how well they are heard.
    </p>
  </div>
</template>

<style scoped>
.check {
  display: grid;
  gap: var(--s3);
}
</style>
