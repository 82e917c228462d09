<script setup lang="ts">
import { ElOption, ElSelect } from 'element-plus'
import { computed, watch } from 'vue'

import { chosenMicrophone, useMicrophones } from '../../audio/microphones'

/** Which input is heard. */
const props = defineProps<{ busy: boolean; allowed: boolean }>()
const emit = defineEmits<{ choose: [] }>()

const { microphones, look } = useMicrophones()
// The names come once the microphone is allowed.
watch(
  () => props.allowed,
  () => void look(),
)
const usual = { id: '', name: 'The browser’s choice' }
const choices = computed(() => [usual, ...microphones.value.filter((m) => m.id !== 'default')])
const isThere = computed(() => choices.value.some((m) => m.id === chosenMicrophone.value))
</script>

<template>
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
    <slot />
  </div>
</template>

<style scoped>
.which {
  width: min(420px, 100%);
}
</style>
