<script setup lang="ts">
import { ElOption, ElSelect } from 'element-plus'
import { computed } from 'vue'

import type { Bench, Key } from '../../api/client'
import { readList, writeList } from '../../bench/lists'
import { pitchClasses } from '../../draw/words'
import ListLine from './ListLine.vue'

const key = defineModel<Key>({ required: true })
const props = defineProps<{ scales: Bench['scales']; fault?: string }>()

const intervals = computed(
  () => props.scales.find((s) => s.id === key.value.scale)?.intervals ?? [0, 2, 3, 7],
)
function setScale(scale: string) {
  key.value =
    scale === 'own'
      ? { root: key.value.root, scale, intervals: intervals.value }
      : { root: key.value.root, scale }
}
</script>

<template>
  <div class="line">
    <span>Key</span>
    <span class="key">
      <el-select
        :model-value="key.root"
        size="small"
        aria-label="Root"
        style="width: 66px"
        @update:model-value="(root: number) => (key = { ...key, root })"
      >
        <el-option v-for="(name, root) in pitchClasses" :key="root" :value="root" :label="name" />
      </el-select>
      <el-select
        :model-value="key.scale"
        size="small"
        filterable
        aria-label="Scale"
        style="width: 176px"
        @update:model-value="setScale"
      >
        <el-option v-for="s in scales" :key="s.id" :value="s.id" :label="s.name" />
        <el-option value="own" label="one's own" />
      </el-select>
    </span>
  </div>
  <ListLine
    v-if="key.scale === 'own'"
    name="Notes of the scale"
    hint="semitones from 0"
    :text="writeList(key.intervals ?? [])"
    @typed="(text) => (key = { ...key, intervals: readList(text) })"
  />
  <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
</template>

<style scoped>
@import './form.css';
.key {
  display: flex;
  gap: 6px;
}
</style>
