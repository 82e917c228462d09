<script setup lang="ts">
import { ElOption, ElSelect } from 'element-plus'
import { computed } from 'vue'

import type { Bench, Key } from '../../api/client'
import { readList, writeList } from '../../bench/lists'
import { roots } from '../../draw/words'
import ListLine from './ListLine.vue'

const key = defineModel<Key>({ required: true })
const props = defineProps<{
  scales: Bench['scales']
  /** Chords are built in thirds, on seven notes. */
  thirds: boolean
  fault?: string
}>()

const intervals = computed(
  () => props.scales.find((s) => s.id === key.value.scale)?.intervals ?? [0, 2, 3, 7],
)
const offered = computed(() =>
  props.scales.filter((s) => !props.thirds || s.intervals.length === 7),
)
const root = computed({
  get: () => `${key.value.root} ${key.value.spelled ?? roots[key.value.root]?.[0]?.spelled ?? ''}`,
  set: (chosen: string) => {
    const { class: root, spelled } = roots.flat().find((r) => r.id === chosen) ?? { class: 0 }
    key.value = { ...key.value, root, spelled }
  },
})
function setScale(scale: string) {
  const { root, spelled } = key.value
  key.value =
    scale === 'own'
      ? { root, spelled, scale, intervals: intervals.value }
      : { root, spelled, scale }
}
</script>

<template>
  <div class="line">
    <span>Key</span>
    <span class="key">
      <el-select v-model="root" size="small" aria-label="Root" style="width: 66px">
        <el-option v-for="r in roots.flat()" :key="r.id" :value="r.id" :label="r.name" />
      </el-select>
      <el-select
        :model-value="key.scale"
        size="small"
        filterable
        aria-label="Scale"
        style="width: 176px"
        @update:model-value="setScale"
      >
        <el-option v-for="s in offered" :key="s.id" :value="s.id" :label="s.name" />
        <el-option value="own" label="one's own" />
      </el-select>
    </span>
  </div>
  <ListLine
    v-if="key.scale === 'own'"
    name="Notes of the scale"
    hint="semitones from 0"
    :text="writeList(key.intervals ?? [])"
    :unread="(t) => readList(t).rest"
    @typed="(text) => (key = { ...key, intervals: readList(text).value })"
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
