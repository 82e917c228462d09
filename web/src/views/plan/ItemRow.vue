<script setup lang="ts">
import { ElButton, ElInput, ElInputNumber, ElOption, ElSelect } from 'element-plus'

import type { Enough, RoutineItem, SavedDrill } from '../../api/client'
import { inMeasure } from './items'

/** One item of a routine while it is composed. */
const props = defineProps<{ number: number; drills: SavedDrill[]; first: boolean; last: boolean }>()
const item = defineModel<RoutineItem>({ required: true })
const emit = defineEmits<{ move: [by: number]; remove: [] }>()

const set = (change: Partial<RoutineItem>) => (item.value = { ...item.value, ...change })
const setEnough = (change: Partial<Enough>) =>
  set({ enough: { ...(item.value.enough ?? inMeasure('takes')), ...change } })
const measures = [
  { value: 'takes', label: 'takes' },
  { value: 'seconds', label: 'minutes' },
  { value: 'clean', label: 'until clean' },
] as const
const kinds = { drill: 'Drill', rest: 'Rest', note: 'Note' }
const label = (what: string) => `${what} of item ${props.number}`
</script>

<template>
  <li class="item">
    <b class="figures number">{{ number }}</b>
    <span class="kind">{{ kinds[item.kind] }}</span>
    <el-select
      v-if="item.kind === 'drill'"
      class="drill"
      filterable
      :model-value="item.drill"
      :aria-label="label('Drill')"
      placeholder="Choose a drill"
      @update:model-value="(drill: string) => set({ drill })"
    >
      <el-option v-for="d in drills" :key="d.id" :value="d.id" :label="d.name" />
    </el-select>
    <el-input
      v-else-if="item.kind === 'note'"
      class="drill"
      :model-value="item.text ?? ''"
      :aria-label="label('Text')"
      :maxlength="500"
      placeholder="What is to be read"
      @update:model-value="(text: string) => set({ text })"
    />
    <span v-else class="drill"></span>
    <div class="amount">
      <template v-if="item.kind === 'drill' && item.enough">
        <el-input-number
          v-if="item.enough.by === 'seconds'"
          :model-value="item.enough.count / 60"
          :min="0.5"
          :max="60"
          :step="0.5"
          controls-position="right"
          :aria-label="label('Minutes')"
          @update:model-value="(v) => v && setEnough({ count: Math.round(v * 60) })"
        />
        <el-input-number
          v-else
          :model-value="item.enough.count"
          :min="1"
          :max="item.enough.by === 'clean' ? (item.enough.of ?? 20) : 50"
          controls-position="right"
          :aria-label="label(item.enough.by === 'clean' ? 'Clean takes' : 'Takes')"
          @update:model-value="(v) => v && setEnough({ count: v })"
        />
        <template v-if="item.enough.by === 'clean'">
          of the last
          <el-input-number
            :model-value="item.enough.of"
            :min="item.enough.count"
            :max="20"
            controls-position="right"
            :aria-label="label('Takes looked back at')"
            @update:model-value="(v) => v && setEnough({ of: v })"
          />
        </template>
        <el-select
          class="by"
          :model-value="item.enough.by"
          :aria-label="label('Measure')"
          @update:model-value="(by: Enough['by']) => set({ enough: { ...inMeasure(by) } })"
        >
          <el-option v-for="m in measures" :key="m.value" :value="m.value" :label="m.label" />
        </el-select>
      </template>
      <template v-else>
        <el-input-number
          :model-value="item.seconds"
          :min="5"
          :max="3600"
          :step="5"
          controls-position="right"
          :aria-label="label('Seconds')"
          @update:model-value="(v) => v && set({ seconds: v })"
        />
        s
      </template>
    </div>
    <div class="moves">
      <el-button
        size="small"
        :disabled="first"
        :aria-label="`Item ${number} earlier`"
        @click="emit('move', -1)"
        >↑</el-button
      >
      <el-button
        size="small"
        :disabled="last"
        :aria-label="`Item ${number} later`"
        @click="emit('move', 1)"
        >↓</el-button
      >
      <el-button size="small" :aria-label="`Take item ${number} out`" @click="emit('remove')"
        >✕</el-button
      >
    </div>
    <el-input
      v-if="item.kind !== 'note'"
      class="text"
      :model-value="item.text ?? ''"
      :aria-label="label('What you say')"
      :placeholder="
        item.kind === 'drill'
          ? 'What you say to it, if anything'
          : 'What to do meanwhile, if anything'
      "
      :maxlength="500"
      @update:model-value="(text: string) => set({ text: text || undefined })"
    />
  </li>
</template>

<style scoped>
.item {
  display: grid;
  grid-template-columns: 2em 4em minmax(220px, 1fr) auto auto;
  gap: var(--s2) var(--s3);
  align-items: center;
  padding: var(--s3) 0;
  border-bottom: var(--edge);
}
.kind {
  color: var(--ink-2);
}
.amount {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2);
  justify-content: flex-end;
}
.amount .el-input-number {
  width: 100px;
}
.by {
  width: 130px;
}
.moves {
  display: flex;
}
.moves .el-button + .el-button {
  margin-left: 4px;
}
.text {
  grid-column: 3 / -1;
}
@media (width < 900px) {
  .item {
    grid-template-columns: 2em minmax(0, 1fr) auto;
  }
  .drill,
  .amount,
  .text {
    grid-column: 2 / -1;
    justify-content: flex-start;
  }
  .moves {
    grid-column: 3;
    grid-row: 1;
  }
}
</style>
