<script setup lang="ts">
import { ElInputNumber, ElOption, ElSelect, ElSlider } from 'element-plus'

import { weakPairs, type PlayerSettings } from './player'

const settings = defineModel<PlayerSettings>({ required: true })

function set<K extends keyof PlayerSettings>(key: K, value: PlayerSettings[K] | undefined) {
  if (value !== undefined) settings.value = { ...settings.value, [key]: value }
}
const mistakes: { key: 'miss' | 'wrong' | 'extra'; name: string }[] = [
  { key: 'miss', name: 'Missed notes' },
  { key: 'wrong', name: 'Wrong notes' },
  { key: 'extra', name: 'Extra notes' },
]
</script>

<template>
  <div class="form">
    <label>
      <span>Unevenness: {{ settings.unevenMs }} ms</span>
      <el-slider
        :model-value="settings.unevenMs"
        :min="0"
        :max="40"
        aria-label="Unevenness in ms"
        @update:model-value="(v) => set('unevenMs', Number(v))"
      />
    </label>
    <label>
      <span>Weak finger pair</span>
      <el-select
        :model-value="settings.weak"
        aria-label="Weak finger pair"
        @update:model-value="(v: string) => set('weak', v)"
      >
        <el-option value="" label="none" />
        <el-option v-for="p in weakPairs" :key="p" :value="p" :label="p.replace('-', '→')" />
      </el-select>
    </label>
    <label v-if="settings.weak">
      <span>comes late by: {{ settings.weakLateMs }} ms</span>
      <el-slider
        :model-value="settings.weakLateMs"
        :min="0"
        :max="60"
        aria-label="Weak pair late by ms"
        @update:model-value="(v) => set('weakLateMs', Number(v))"
      />
    </label>
    <label v-for="m in mistakes" :key="m.key">
      <span>{{ m.name }}</span>
      <el-input-number
        :model-value="settings[m.key]"
        :min="0"
        :max="20"
        :aria-label="m.name"
        @update:model-value="(v) => set(m.key, v)"
      />
    </label>
  </div>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(170px, 1fr));
  gap: var(--s3) var(--s5);
  align-items: end;
}
label {
  display: grid;
  gap: var(--s1);
}
</style>
