<script setup lang="ts">
import { ElDropdown, ElDropdownItem, ElDropdownMenu, ElButton, ElNotification } from 'element-plus'
import { useRouter } from 'vue-router'

import { answer, client, type DrillFile } from '../../api/client'
import { download } from '../../bench/download'
import { layOut } from '../print/sheet'

/** Exports the drill: as paper, or as a file in an open format. */
const props = defineProps<{ file: DrillFile; bpm: number; whom?: string; disabled: boolean }>()
const emit = defineEmits<{ failed: [thrown: unknown] }>()
const router = useRouter()

let told: ReturnType<typeof ElNotification> | undefined

const formats = [
  { id: 'musicxml', name: 'MusicXML' },
  { id: 'midi', name: 'MIDI with click' },
  { id: 'tab', name: 'Tab text' },
  { id: 'json', name: 'Drill document' },
  { id: 'wav', name: 'Sound' },
  { id: 'wavClick', name: 'Sound with click' },
] as const

async function exportAs(to: (typeof formats)[number]['id'] | 'print') {
  if (to === 'print') {
    layOut([{ file: props.file }])
    await router.push('/print')
    return
  }
  try {
    const out = await answer(
      client.POST('/export', {
        body: props.file,
        params: { query: { format: to, bpm: props.bpm, for: props.whom } },
      }),
    )
    download(out)
    told?.close() // the one before would lie over the bench
    told = ElNotification({
      title: `Saved as ${out.name}`,
      message: out.lost.join(' ') || 'Everything is in it.',
      duration: 9000,
      position: 'bottom-right',
    })
  } catch (thrown) {
    emit('failed', thrown)
  }
}
</script>

<template>
  <el-dropdown trigger="click" @command="exportAs">
    <el-button data-test="export" :disabled="disabled">Export</el-button>
    <template #dropdown>
      <el-dropdown-menu>
        <el-dropdown-item data-test="export-as" :data-of="'print'" command="print"
          >Sheet: print, PDF, SVG</el-dropdown-item
        >
        <el-dropdown-item
          v-for="f in formats"
          :key="f.id"
          data-test="export-as"
          :data-of="f.id"
          :command="f.id"
          >{{ f.name }}</el-dropdown-item
        >
      </el-dropdown-menu>
    </template>
  </el-dropdown>
</template>
