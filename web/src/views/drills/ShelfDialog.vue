<script setup lang="ts">
import { ElAutocomplete, ElButton, ElDialog } from 'element-plus'
import { ref } from 'vue'

import type { SavedDrill, Shelf } from '../../api/client'

/** Where a drill stands in the library. */
const props = defineProps<{ drill: SavedDrill; folders: string[]; tags: string[] }>()
const emit = defineEmits<{ close: []; put: [shelf: Shelf] }>()

const folder = ref(props.drill.shelf.folder)
const tags = ref([...props.drill.shelf.tags])
const tag = ref('')

function offer(all: string[]) {
  return (typed: string, show: (found: { value: string }[]) => void) =>
    show(
      all
        .filter((one) => one.toLowerCase().includes(typed.toLowerCase()))
        .map((value) => ({ value })),
    )
}
function add() {
  const t = tag.value.trim()
  if (t && !tags.value.includes(t)) tags.value.push(t)
  tag.value = ''
}
function put() {
  add()
  emit('put', { ...props.drill.shelf, folder: folder.value.trim(), tags: tags.value })
}
</script>

<template>
  <el-dialog
    :model-value="true"
    :title="`Where “${drill.file.drill.name}” stands`"
    width="480"
    @close="emit('close')"
  >
    <form class="stack" @submit.prevent="put">
      <label>
        <span class="small quiet">Folder</span>
        <el-autocomplete
          v-model="folder"
          data-test="folder"
          :fetch-suggestions="offer(folders)"
          maxlength="80"
          aria-label="Folder"
          placeholder="none"
        />
      </label>
      <label>
        <span class="small quiet">Tags, each with enter</span>
        <el-autocomplete
          v-model="tag"
          data-test="tag"
          :fetch-suggestions="offer(props.tags.filter((t) => !tags.includes(t)))"
          maxlength="40"
          aria-label="Tag"
          @keydown.enter.prevent="add"
          @select="add"
        />
      </label>
      <p v-if="tags.length" class="row tags">
        <button
          v-for="t in tags"
          :key="t"
          type="button"
          :aria-label="`Remove the tag ${t}`"
          @click="tags = tags.filter((u) => u !== t)"
        >
          {{ t }} ×
        </button>
      </p>
    </form>
    <template #footer>
      <el-button data-test="put-there" type="primary" @click="put">Put it there</el-button>
    </template>
  </el-dialog>
</template>

<style scoped>
label {
  display: grid;
  gap: var(--s1);
}
.tags {
  gap: var(--s2);
}
.tags button {
  border: 1px solid var(--line-2);
  border-radius: 99px;
  background: var(--sheet-2);
  color: var(--ink);
  padding: 2px 10px;
  font-size: var(--t-small);
  cursor: pointer;
}
</style>
