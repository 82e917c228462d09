<script setup lang="ts">
import { ElOption, ElOptionGroup, ElSelect } from 'element-plus'
import { computed } from 'vue'

import type { Family } from '../../api/client'

/** The families of drills by name; typing finds one. */
const family = defineModel<string>({ required: true })
const props = defineProps<{ families: Family[] }>()

const groups = computed(() => {
  const by = new Map<string, Family[]>()
  for (const f of props.families) by.set(f.group, [...(by.get(f.group) ?? []), f])
  return [...by.entries()]
})
const about = computed(() => props.families.find((f) => f.id === family.value)?.about)
</script>

<template>
  <div class="family">
    <el-select
      v-model="family"
      data-test="family"
      filterable
      size="large"
      aria-label="Family of drills"
      :fit-input-width="false"
      popper-class="families"
    >
      <el-option-group v-for="[group, all] in groups" :key="group" :label="group">
        <el-option
          v-for="f in all"
          :key="f.id"
          data-test="family-option"
          :data-of="f.id"
          :value="f.id"
          :label="f.name"
        >
          <b>{{ f.name }}</b> <span class="quiet small">{{ f.about }}</span>
        </el-option>
      </el-option-group>
    </el-select>
    <p class="small quiet">{{ about }}</p>
  </div>
</template>

<style scoped>
.family {
  display: grid;
  gap: var(--s1);
}
.family :deep(.el-select__selected-item) {
  font-weight: 700;
}
</style>

<style>
.families {
  max-width: min(720px, 94vw);
}
.families .el-select-dropdown__wrap {
  max-height: 460px;
}
</style>
