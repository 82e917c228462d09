<script setup lang="ts">
import { ElButton, ElOption, ElSelect } from 'element-plus'

import type { Person } from '../../api/client'
import { me } from './me'
import NumberLine from './NumberLine.vue'
import SwitchLine from './SwitchLine.vue'
import { limits } from '../../api/limits.gen'

/** How the drill is heard, and whose guitar and hand it is for. */
const bpm = defineModel<number>('bpm', { required: true })
const click = defineModel<boolean>('click', { required: true })
const whom = defineModel<string>('whom', { required: true })
defineProps<{ playing: boolean; ready: boolean; students: Person[] }>()
const emit = defineEmits<{ hear: []; setup: [] }>()
</script>

<template>
  <div class="hearing">
    <el-button
      data-test="hear"
      :data-of="playing ? 'playing' : 'still'"
      type="primary"
      class="hear"
      :disabled="!ready"
      @click="emit('hear')"
      >{{ playing ? 'Stop' : 'Hear it' }}</el-button
    >
    <kbd>H</kbd>
    <NumberLine
      v-model="bpm"
      name="Tempo to hear it at"
      label="at bpm"
      :min="limits.Rung.bpm.min"
      :max="limits.Rung.bpm.max"
    />
    <SwitchLine v-model="click" name="with click" />
    <span class="fit">
      <span class="small">For</span>
      <el-select
        v-model="whom"
        data-test="whose-hand"
        size="small"
        aria-label="Whose guitar and hand"
      >
        <el-option :value="me" label="my guitar and hand" />
        <el-option
          v-for="p in students"
          :key="p.id"
          data-test="whose-hand-option"
          :data-of="p.name"
          :value="p.id"
          :label="p.name"
        />
      </el-select>
      <el-button data-test="setup" size="small" @click="emit('setup')">Guitar and hand</el-button>
    </span>
  </div>
</template>

<style scoped>
.hearing {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s1) var(--s3);
}
.hear {
  min-width: 96px;
}
.hearing :deep(.line) {
  gap: var(--s2);
}
.fit {
  display: flex;
  align-items: center;
  gap: var(--s2);
  margin-left: auto;
}
.fit .el-select {
  width: 172px;
}
@media (width < 960px) {
  .fit {
    margin-left: 0;
  }
}
</style>
