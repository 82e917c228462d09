<script setup lang="ts">
import { ElButton, ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'
import { RouterLink } from 'vue-router'

import type { SavedDrill } from '../../api/client'
import { divisionWords, ladderWords, pathWords, patternWords } from '../../draw/words'

defineProps<{ drill: SavedDrill }>()
const chosen = defineModel<boolean>('chosen', { required: true })
const emit = defineEmits<{
  assign: []
  favourite: []
  command: [what: 'copy' | 'shelf' | 'print' | 'everybody' | 'delete']
}>()
</script>

<template>
  <article>
    <div class="marks">
      <input v-model="chosen" type="checkbox" :aria-label="`Choose ${drill.name}`" />
      <button
        data-test="favourite"
        :data-of="drill.name"
        type="button"
        class="pin"
        :aria-pressed="drill.shelf.favourite"
        :aria-label="`Favourite ${drill.name}`"
        title="Favourite"
        @click="emit('favourite')"
      >
        <svg viewBox="0 0 16 20" aria-hidden="true"><path d="M2 1h12v17l-6-5l-6 5z" /></svg>
      </button>
    </div>
    <div class="what">
      <h2>
        <template v-if="drill.odd">{{ drill.name }}</template>
        <RouterLink v-else data-test="drill" :data-of="drill.name" :to="`/drills/${drill.id}`">{{
          drill.name
        }}</RouterLink>
      </h2>
      <p v-if="drill.odd" class="quiet">
        Saved by another version of Manudrill, which this one cannot read. It is kept as it is.
      </p>
      <p v-else class="quiet">{{ patternWords(drill.file.drill) }}</p>
      <p class="quiet small">
        <template v-if="!drill.odd">{{ pathWords(drill.file.drill) }}</template>
        <span v-for="t in drill.shelf.tags" :key="t" class="tag">{{ t }}</span>
      </p>
    </div>
    <dl>
      <div v-if="!drill.odd">
        <dt>Tempo</dt>
        <dd>{{ ladderWords(drill.file) }}</dd>
        <dd class="quiet small">
          {{ divisionWords(drill.file.drill.rhythm) }}
        </dd>
      </div>
      <div>
        <dt>Students</dt>
        <dd>{{ drill.students.join(', ') || 'nobody yet' }}</dd>
      </div>
      <div>
        <dt>Takes</dt>
        <dd class="figures">{{ drill.takes }}</dd>
      </div>
    </dl>
    <div class="actions">
      <el-button v-if="!drill.odd" data-test="assign" @click="emit('assign')">Assign</el-button>
      <el-dropdown trigger="click" @command="(what) => emit('command', what)">
        <el-button data-test="more" :data-of="drill.name" :aria-label="`More for ${drill.name}`"
          >More</el-button
        >
        <template #dropdown>
          <el-dropdown-menu>
            <el-dropdown-item v-if="!drill.odd" data-test="command" :data-of="'copy'" command="copy"
              >Copy</el-dropdown-item
            >
            <el-dropdown-item data-test="command" :data-of="'shelf'" command="shelf"
              >Folder and tags</el-dropdown-item
            >
            <el-dropdown-item v-if="!drill.odd" command="print">Print</el-dropdown-item>
            <el-dropdown-item v-if="drill.students.length" command="everybody"
              >With everybody</el-dropdown-item
            >
            <el-dropdown-item data-test="command" :data-of="'delete'" command="delete"
              >Delete</el-dropdown-item
            >
          </el-dropdown-menu>
        </template>
      </el-dropdown>
    </div>
  </article>
</template>

<style scoped>
article {
  display: grid;
  grid-template-columns: auto minmax(200px, 5fr) minmax(280px, 5fr) auto;
  gap: var(--s2) var(--s4);
  align-items: center;
  padding: var(--s3) 0;
  border-bottom: var(--edge);
}
article:last-child {
  border-bottom: 0;
}
.marks {
  display: flex;
  align-items: center;
  gap: var(--s2);
}
.marks input {
  width: 17px;
  height: 17px;
  accent-color: var(--ink);
}
.pin {
  border: 0;
  background: none;
  padding: 4px;
  cursor: pointer;
}
.pin svg {
  display: block;
  width: 14px;
  height: 18px;
}
.pin path {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.6;
}
.pin[aria-pressed='true'] path {
  fill: var(--ink);
  stroke: var(--ink);
}
dl {
  margin: 0;
  display: grid;
  grid-template-columns: 4fr 4fr 1fr;
  gap: var(--s3);
}
dt {
  font-size: var(--t-small);
  color: var(--ink-2);
}
dd {
  margin: 0;
  font-size: calc(15px * var(--scale, 1));
}
.tag {
  display: inline-block;
  margin-left: 6px;
  padding: 0 8px;
  border: 1px solid var(--line-2);
  border-radius: 99px;
}
.actions {
  display: flex;
  gap: var(--s2);
}
@media (width < 1200px) {
  article {
    grid-template-columns: auto minmax(0, 1fr) auto;
  }
  dl {
    grid-row: 2;
    grid-column: 2 / -1;
  }
}
@media (width < 600px) {
  article {
    grid-template-columns: auto minmax(0, 1fr);
  }
  .actions {
    grid-column: 2;
  }
}
</style>
