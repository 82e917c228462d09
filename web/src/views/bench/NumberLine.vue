<script setup lang="ts">
import { ElInputNumber } from 'element-plus'

/** A labelled number of a drill, with what is wrong about it. */
const value = defineModel<number>({ required: true })
defineProps<{
  name: string
  min: number
  max: number
  step?: number
  label?: string
  fault?: string
}>()

function set(v: number | undefined) {
  if (v !== undefined) value.value = v
}
</script>

<template>
  <label class="line">
    <span>{{ label ?? name }}</span>
    <el-input-number
      :model-value="value"
      :min="min"
      :max="max"
      :step="step ?? 1"
      :aria-label="name"
      @update:model-value="set"
    />
  </label>
  <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
</template>

<style scoped>
@import './form.css';
</style>
