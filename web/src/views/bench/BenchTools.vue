<script setup lang="ts">
import { ElButton, ElPopover } from 'element-plus'

import type { Drill, DrillFile, Preview } from '../../api/client'
import KeyList from '../../components/KeyList.vue'
import { shortcuts } from './shortcuts'
import ExportMenu from './ExportMenu.vue'

/** What can be done with the drill as a whole. */
defineProps<{
  file: DrillFile
  /** The part that is being set. */
  part: Drill
  preview?: Preview
  bpm: number
  whom?: string
  canUndo: boolean
  canRedo: boolean
  changed: boolean
  isNew: boolean
}>()
const emit = defineEmits<{
  undo: []
  redo: []
  /** As if the key of the bench had been pressed. */
  press: [key: string]
  free: []
  pickedFirst: []
  open: [dialog: 'assign' | 'variations']
  save: []
  saveAsNew: []
  failed: [thrown: unknown]
}>()
</script>

<template>
  <span class="tools">
    <el-button
      data-test="undo"
      :disabled="!canUndo"
      aria-label="Undo"
      title="Undo (Ctrl Z)"
      @click="emit('undo')"
      >↶</el-button
    >
    <el-button
      data-test="redo"
      :disabled="!canRedo"
      aria-label="Redo"
      title="Redo (Ctrl Shift Z)"
      @click="emit('redo')"
      >↷</el-button
    >
    <el-popover trigger="click" :width="300">
      <template #reference>
        <el-button data-test="rework">Rework</el-button>
      </template>
      <div class="changes">
        <el-button @click="emit('press', '[')">A fret down</el-button>
        <el-button @click="emit('press', ']')">A fret up</el-button>
        <el-button @click="emit('press', ',')">Thicker strings</el-button>
        <el-button @click="emit('press', '.')">Thinner strings</el-button>
        <el-button :aria-pressed="part.mirror" @click="emit('press', 'm')">{{
          part.mirror ? 'Mirrored ✓' : 'Mirror'
        }}</el-button>
        <el-button :aria-pressed="part.reverse" @click="emit('press', 'r')">{{
          part.reverse ? 'Reversed ✓' : 'Reverse'
        }}</el-button>
        <el-button class="wide" @click="emit('pickedFirst')"
          >Picked first, then the same slurred</el-button
        >
        <el-button
          v-if="!file.drill.then && part.pattern.kind !== 'free'"
          data-test="own-notes"
          class="wide"
          @click="emit('free')"
          >Make it your own notes</el-button
        >
      </div>
      <KeyList class="keys small" :keys="shortcuts" />
    </el-popover>
    <el-button
      data-test="variations"
      :disabled="!preview?.varieties?.length"
      @click="emit('open', 'variations')"
      >All variations</el-button
    >
    <ExportMenu
      :file="file"
      :bpm="bpm"
      :whom="whom"
      :disabled="!preview?.chart"
      @failed="(thrown) => emit('failed', thrown)"
    />
    <el-button v-if="!isNew && !changed" data-test="assign" @click="emit('open', 'assign')"
      >Assign</el-button
    >
    <el-button data-test="save" type="primary" :disabled="!changed" @click="emit('save')"
      >Save</el-button
    >
    <el-button v-if="!isNew" data-test="save-as-new" @click="emit('saveAsNew')"
      >Save as new</el-button
    >
  </span>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
}
.changes {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.changes .wide {
  grid-column: 1 / -1;
}
.keys {
  margin-top: var(--s3);
}
</style>
