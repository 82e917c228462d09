<script setup lang="ts">
import { ElPopover } from 'element-plus'

defineProps<{
  name: string
  value: string
  unit?: string
  /** A second figure, smaller. */
  also?: string
}>()
</script>

<template>
  <div class="tile">
    <div class="name">
      {{ name }}
      <el-popover trigger="click" :width="320" :title="name">
        <template #reference>
          <button
            data-test="explain"
            :data-of="name"
            type="button"
            :aria-label="`What is ${name.toLowerCase()}?`"
          >
            <span>?</span>
          </button>
        </template>
        <slot />
      </el-popover>
    </div>
    <div class="value">
      <b class="figures">{{ value }}</b><span v-if="unit">{{ unit }}</span>
    </div>
    <div v-if="also" class="small quiet">{{ also }}</div>
  </div>
</template>

<style scoped>
.tile {
  padding: var(--s3) var(--s4);
  background: var(--sheet);
  border: var(--edge);
  border-radius: var(--round);
  min-width: 0;
}
.name {
  display: flex;
  justify-content: space-between;
  align-items: start;
  gap: var(--s2);
  font-size: var(--t-small);
  color: var(--ink-2);
  font-weight: 600;
}
button {
  flex: none;
  display: grid;
  --ring: 22px;
  place-items: start end;
  width: var(--fingertip);
  height: var(--fingertip);
  margin: 0 0 calc(var(--ring) - var(--fingertip)) calc(var(--ring) - var(--fingertip));
  padding: 0;
  border: 0;
  background: none;
  cursor: pointer;
}
/* The ring takes room; the fingertip's place about it takes none. */
button span {
  display: grid;
  place-items: center;
  width: var(--ring);
  height: var(--ring);
  border-radius: 50%;
  border: 1px solid var(--line-2);
  color: var(--ink-2);
  font: inherit;
  font-size: calc(13px * var(--scale, 1));
  line-height: 1;
}
button:hover span {
  border-color: var(--ink);
  color: var(--ink);
}
.value {
  display: flex;
  align-items: baseline;
  gap: 6px;
}
.value b {
  font-size: calc(30px * var(--scale, 1));
  line-height: 1.2;
}
</style>
