<script setup lang="ts">
import { ElButton, ElOption, ElSelect } from 'element-plus'
import { computed, watch } from 'vue'

import type { InputLevel } from '../../audio/input'
import { chosenMicrophone, useMicrophones } from '../../audio/microphones'
import InputPicture from './InputPicture.vue'

/** Which input is heard, and how well, before the first note. */
const props = defineProps<{ input?: InputLevel; stamp: number; busy: boolean }>()
const emit = defineEmits<{ choose: [] }>()

const { microphones, look } = useMicrophones()
// The names come once the microphone is allowed.
watch(
  () => props.input,
  () => void look(),
)
const usual = { id: '', name: 'The browser’s choice' }
const choices = computed(() => [usual, ...microphones.value.filter((m) => m.id !== 'default')])
const isThere = computed(() => choices.value.some((m) => m.id === chosenMicrophone.value))
</script>

<template>
  <div class="check">
    <div class="row">
      <span>Input</span>
      <el-select
        v-model="chosenMicrophone"
        class="which"
        aria-label="Input"
        :empty-values="[null, undefined]"
        :disabled="busy"
        @change="emit('choose')"
      >
        <el-option v-for="m in choices" :key="m.id" :value="m.id" :label="m.name" />
        <el-option
          v-if="!isThere && microphones.length > 0"
          :value="chosenMicrophone"
          label="An input that is not there now"
        />
      </el-select>
      <el-button v-if="!input" :disabled="busy" @click="emit('choose')">Check the sound</el-button>
    </div>
    <InputPicture v-if="input" :input="input" :stamp="stamp" />
    <p v-else class="quiet">
      Play a few notes before the first take, to see how well they are heard.
    </p>
  </div>
</template>

<style scoped>
.check {
  display: grid;
  gap: var(--s3);
}
.which {
  width: min(420px, 100%);
}
</style>
