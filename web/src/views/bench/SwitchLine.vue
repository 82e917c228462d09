<script setup lang="ts">
import { ElSwitch } from 'element-plus'

const value = defineModel<boolean>({ required: true })
defineProps<{ name: string; about?: string }>()
</script>

<template>
  <label class="line" :title="about">
    <span>{{ name }}</span>
    <el-switch
      :model-value="value"
      size="small"
      :aria-label="name"
      @update:model-value="(v) => (value = Boolean(v))"
    />
  </label>
</template>

<style scoped>
@import './form.css';
</style>
