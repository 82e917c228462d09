<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { ElDialog } from 'element-plus'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'

import { inDialog, type Page } from '../goto'
import KeyList from './KeyList.vue'
import { shortcuts as ofBench } from '../views/bench/shortcuts'

/** All keys there are, on every page behind the question mark. */
const props = defineProps<{ pages: Page[] }>()
const route = useRoute()
const open = ref(false)

onKeyStroke('?', (event) => {
  const on = event.target as HTMLElement
  if (on.closest('input, textarea, select') || on.isContentEditable) return
  if (inDialog()) return
  event.preventDefault()
  open.value = true
})

const everywhere = computed(() => [
  ...props.pages.map((p) => ({ key: `G ${p.key.toUpperCase()}`, does: p.text })),
  { key: '?', does: 'these keys' },
])
const ofPage = computed(() => {
  if (/^\/drills\/.+/.test(route.path))
    return { name: 'At the bench', keys: ofBench.filter((s) => s.key !== '?') }
  if (route.path === '/students')
    return {
      name: 'At the glance, on a student',
      keys: [
        { key: 'L', does: 'lesson' },
        { key: 'P', does: 'plan' },
        { key: 'R', does: 'report' },
        { key: 'T', does: 'takes' },
      ],
    }
  if (/^\/(stand|routines)\//.test(route.path))
    return {
      name: 'At the stand',
      keys: [{ key: 'Space', does: 'play, stop, go on; your own keys are set under your name' }],
    }
  if (route.path === '/metronome')
    return {
      name: 'At the metronome',
      keys: [
        { key: 'Space', does: 'start and stop' },
        { key: '↑ ↓', does: 'faster and slower' },
        { key: 'T', does: 'tap the tempo' },
      ],
    }
  return undefined
})
</script>

<template>
  <el-dialog v-if="open" v-model="open" title="Keys" width="min(440px, calc(100vw - 32px))">
    <template v-if="ofPage">
      <h3>{{ ofPage.name }}</h3>
      <KeyList :keys="ofPage.keys" />
    </template>
    <h3>Everywhere</h3>
    <KeyList :keys="everywhere" />
  </el-dialog>
</template>

<style scoped>
h3 {
  margin: var(--s3) 0 var(--s2);
}
h3:first-child {
  margin-top: 0;
}
</style>
