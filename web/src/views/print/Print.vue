<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import { ElButton } from 'element-plus'
import { onMounted, ref, watchEffect } from 'vue'
import { useRouter } from 'vue-router'

import { useAttempt } from '../../api/attempt'
import { answer, client, type Preview } from '../../api/client'
import NeckView from '../../components/NeckView.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import StaffView from '../../components/StaffView.vue'
import TabView from '../../components/TabView.vue'
import { count, ladderWords, pathWords, patternWords } from '../../draw/words'
import ChoiceLine from '../bench/ChoiceLine.vue'
import SwitchLine from '../bench/SwitchLine.vue'
import { laidOut } from './sheet'

/** One or several drills as sheets of paper; the browser prints them. */
const router = useRouter()
const files = laidOut()
const previews = ref<Preview[]>([])
const { problem, attempt } = useAttempt()

const size = useStorage<'A4' | 'Letter'>('manudrill sheet size', 'A4')
const sizes = [
  { label: 'A4', value: 'A4' },
  { label: 'Letter', value: 'Letter' },
] as const
const parts = useStorage('manudrill sheet parts', {
  neck: true,
  staff: true,
  tab: true,
  table: true,
  pageEach: false,
})

onMounted(() =>
  attempt(async () => {
    for (const body of files) previews.value.push(await answer(client.POST('/preview', { body })))
  }),
)
// The size of the paper can only be told to the printer in a style sheet.
watchEffect((onCleanup) => {
  const style = document.createElement('style')
  style.textContent = `@page { size: ${size.value}; margin: 14mm; }`
  document.head.append(style)
  onCleanup(() => style.remove())
})

const rows = 8
const printSheet = () => print()
</script>

<template>
  <div class="print">
    <div class="controls">
      <el-button @click="router.back()">Back</el-button>
      <ChoiceLine v-model="size" name="Paper" label="" :options="sizes" />
      <SwitchLine v-model="parts.neck" name="Neck" />
      <SwitchLine v-model="parts.staff" name="Staff" />
      <SwitchLine v-model="parts.tab" name="Tab" />
      <SwitchLine v-model="parts.table" name="Tempo table" />
      <SwitchLine v-if="files.length > 1" v-model="parts.pageEach" name="A page each" />
      <el-button type="primary" :disabled="previews.length < files.length" @click="printSheet"
        >Print</el-button
      >
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="files.length === 0" class="sheet">
      Nothing is laid out. Open a drill and take it out as a printed sheet.
    </p>
    <div :class="['paper', size]">
      <article v-for="(preview, i) in previews" :key="i" :class="{ page: parts.pageEach && i > 0 }">
        <header>
          <h2>{{ files[i]!.drill.name }}</h2>
          <p>
            {{ patternWords(files[i]!.drill) }}. {{ pathWords(files[i]!.drill) }}.
            {{ count(files[i]!.drill.rhythm.notesPerBeat, 'note') }} a beat,
            {{ ladderWords(files[i]!) }}.
          </p>
        </header>
        <template v-if="preview.chart && preview.neck">
          <NeckView v-if="parts.neck" :neck="preview.neck" :chart="preview.chart" :gap="22" />
          <StaffView v-if="parts.staff" :chart="preview.chart" />
          <TabView v-if="parts.tab" :chart="preview.chart" :chords="preview.chords" />
          <table v-if="parts.table" class="tempi">
            <thead>
              <tr>
                <th>Date</th>
                <th v-for="n in rows" :key="n" />
              </tr>
            </thead>
            <tbody>
              <tr>
                <th>bpm, even</th>
                <td v-for="n in rows" :key="n" />
              </tr>
              <tr>
                <th>minutes</th>
                <td v-for="n in rows" :key="n" />
              </tr>
            </tbody>
          </table>
        </template>
        <p v-for="f in preview.faults" :key="f.text">{{ f.text }}</p>
      </article>
      <footer v-if="previews.length">
        Clean, even, relaxed, then fast. A tired muscle is normal: rest and shake out. Pain,
        numbness or tingling: stop, and see a doctor or hand therapist if it stays.
      </footer>
    </div>
  </div>
</template>

<style scoped>
.controls {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2) var(--s4);
  align-items: center;
  margin-bottom: var(--s4);
}
.controls :deep(.line) {
  gap: var(--s2);
}
.paper {
  background: #fff;
  margin: 0 auto;
  padding: 14mm;
  box-shadow: 0 2px 14px rgb(0 0 0 / 18%);
  max-width: 100%;
  --sheet: #fff;
  --ink: #000;
  --ink-2: #333;
  --ink-3: #555;
  --line-2: #888;
  --wood: #fff;
  --wood-line: #777;
  --wood-ink: #222;
  color: #000;
}
.paper.A4 {
  width: 210mm;
}
.paper.Letter {
  width: 216mm;
}
article {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s3);
  padding-bottom: var(--s5);
  break-inside: avoid;
}
article + article {
  border-top: 1px solid #888;
  padding-top: var(--s4);
}
header p {
  font-size: var(--t-small);
}
.tempi,
.paper :deep(svg) {
  break-inside: avoid;
}
.tempi {
  width: 100%;
  border-collapse: collapse;
  font-size: 12px;
}
.tempi th,
.tempi td {
  border: 1px solid #888;
  height: 24px;
  text-align: left;
  padding: 0 6px;
  font-weight: 600;
  width: 10%;
}
.paper footer {
  font-size: 12px;
  border-top: 1px solid #888;
  padding-top: var(--s2);
}
.paper footer {
  break-before: avoid;
}
@media print {
  article {
    gap: var(--s2);
    padding-bottom: var(--s3);
  }
  .controls {
    display: none;
  }
  .paper {
    padding: 0;
    box-shadow: none;
    width: auto !important;
  }
  .page {
    break-before: page;
    border-top: 0;
  }
}
@media (width < 600px) {
  .paper {
    padding: var(--s3);
  }
}
</style>
