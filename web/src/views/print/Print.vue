<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import { ElButton } from 'element-plus'
import { onMounted, ref, watch, watchEffect } from 'vue'
import { useRouter } from 'vue-router'

import { useAttempt } from '../../api/attempt'
import { answer, client, type DrillFile, type Preview } from '../../api/client'
import { saveAs } from '../../bench/download'
import NeckView from '../../components/NeckView.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import StaffView from '../../components/StaffView.vue'
import TabView from '../../components/TabView.vue'
import { divisionWords, ladderWords, lasting, pathWords, patternWords } from '../../draw/words'
import { person } from '../../session'
import ChoiceLine from '../bench/ChoiceLine.vue'
import SwitchLine from '../bench/SwitchLine.vue'
import type { SheetToKeep } from './files'
import { laidOut } from './sheet'

/** One page for the music stand: one drill whole, or several in short; the browser prints it. */
const router = useRouter()
const { title, drills } = laidOut()
const previews = ref<Preview[]>([])
const { problem, busy, attempt, once } = useAttempt()

const size = useStorage<'A4' | 'Letter'>('manudrill sheet size', 'A4')
const sizes = [
  { label: 'A4', value: 'A4' },
  { label: 'Letter', value: 'Letter' },
] as const
const parts = useStorage('manudrill sheet shows', {
  neck: true,
  staff: false,
  tab: true,
  table: true,
  pageEach: false,
})
/** How many drills are printed whole; more come in short, a line each. */
const fewDrills = 3
const short = ref(drills.length > fewDrills)
const layouts = [
  {
    label: 'in short',
    value: true,
    about: 'A line each: number, name, seconds, tab, boxes for bpm',
  },
  { label: 'whole', value: false, about: 'Each with neck, staff, tab and table, as chosen' },
].map((o) => ({ ...o, value: Number(o.value) }))
const student = ref(person.value?.role === 'student' ? person.value.name : '')

onMounted(() =>
  attempt(async () => {
    for (const { file, drawn } of drills)
      previews.value.push(
        drawn ? { ...drawn, faults: [] } : await answer(client.POST('/preview', { body: file })),
      )
  }),
)
// The size of the paper can only be told to the printer in a style sheet.
watchEffect((onCleanup) => {
  const style = document.createElement('style')
  style.textContent = `@page { size: ${size.value}; margin: 14mm; }`
  document.head.append(style)
  onCleanup(() => style.remove())
})

/** One drill that is a little longer than a page is drawn smaller, so that the stand holds it. */
const zoom = ref(1)
const smallest = 0.6
/** Of several drills, two short ones with neck, staff and tab share a page. */
const twoOnAPage = 0.8
const pageHeight = { A4: 297 - 28, Letter: 279.4 - 28 } // mm, between the margins
const pixelsPerMm = 96 / 25.4
let fitting = 0
async function fit() {
  const mine = ++fitting
  zoom.value = drills.length > 1 && !short.value && !parts.value.pageEach ? twoOnAPage : 1
  if (drills.length !== 1) return
  const room = pageHeight[size.value] * pixelsPerMm
  for (let next = 1; next >= smallest && mine === fitting; next -= 0.05) {
    zoom.value = next
    await drawn()
    if (!sheet.value || sheet.value.getBoundingClientRect().height <= room) return
  }
  if (mine === fitting) zoom.value = 1 // so long a drill takes two pages
}
/** Drawings follow the room that they have a frame later. */
const drawn = () =>
  new Promise<void>((resolve) =>
    requestAnimationFrame(() => requestAnimationFrame(() => resolve())),
  )
const sheet = ref<HTMLElement>()
watch([previews, size, parts, short, student], () => void fit(), { deep: true, flush: 'post' })

const rows = 8
const boxes = 4
const printSheet = () => print()

const care =
  'Clean, even, relaxed, then fast. A tired muscle is normal: rest and shake out. Pain, ' +
  'numbness or tingling: stop, and see a doctor or hand therapist if it stays.'
const paper = ref<HTMLElement>()
function wordsOf(file: DrillFile): string {
  return (
    `${patternWords(file.drill)}. ${pathWords(file.drill)}. ` +
    `${divisionWords(file.drill.rhythm)}, ${ladderWords(file)}.`
  )
}
/** What lies on the paper, drawings and all. */
function onPaper(): SheetToKeep {
  const places = [...(paper.value?.querySelectorAll('[data-drill]') ?? [])]
  return {
    title: student.value ? `${title}, for ${student.value}` : title,
    care,
    drills: drills.map(({ file, seconds }, i) => ({
      heading: drills.length > 1 ? `${i + 1}. ${file.drill.name}` : '',
      lines: [wordsOf(file) + (seconds ? ` ${lasting(seconds)}.` : '')],
      drawings: [...(places[i]?.querySelectorAll('svg') ?? [])],
    })),
  }
}
const keep = (as: 'SVG' | 'PDF') =>
  once(async () => {
    const files = await import('./files')
    const content =
      as === 'SVG'
        ? await files.sheetAsSVG(onPaper())
        : await files.sheetAsPDF(onPaper(), size.value)
    saveAs(content, `${title || 'sheet'}.${as.toLowerCase()}`)
  })
</script>

<template>
  <div class="print">
    <div class="controls">
      <el-button @click="router.back()">Back</el-button>
      <ChoiceLine v-model="size" data-test="paper" name="Paper" label="" :options="sizes" />
      <ChoiceLine
        v-if="drills.length > 1"
        :model-value="Number(short)"
        name="Drills"
        :options="layouts"
        @update:model-value="(v) => (short = v === 1)"
      />
      <label class="line">
        <span>For</span>
        <input v-model="student" class="text" maxlength="80" aria-label="Whom the sheet is for" />
      </label>
      <template v-if="!short">
        <SwitchLine v-model="parts.neck" name="Neck" />
        <SwitchLine v-model="parts.staff" data-test="sheet-staff" name="Staff" />
        <SwitchLine v-model="parts.tab" name="Tab" />
        <SwitchLine v-model="parts.table" name="Tempo table" />
        <SwitchLine v-if="drills.length > 1" v-model="parts.pageEach" name="A page each" />
      </template>
      <el-button
        data-test="save-as"
        :data-of="'SVG'"
        :disabled="busy || previews.length < drills.length"
        @click="keep('SVG')"
        >SVG</el-button
      >
      <el-button
        data-test="save-as"
        :data-of="'PDF'"
        :disabled="busy || previews.length < drills.length"
        @click="keep('PDF')"
        >PDF</el-button
      >
      <el-button type="primary" :disabled="previews.length < drills.length" @click="printSheet"
        >Print</el-button
      >
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="drills.length === 0" class="sheet">
      Nothing is laid out. Open a drill and take it out as a printed sheet.
    </p>
    <div v-else ref="paper" :class="['paper', size]">
      <div ref="sheet" :style="{ zoom }">
        <header class="top">
          <h1>{{ title }}</h1>
          <p class="whom">
            <span
              >For <b v-if="student">{{ student }}</b><i v-else
            /></span>
            <span>Week of <i /></span>
          </p>
          <p class="care">{{ care }}</p>
        </header>
        <template v-if="short">
          <section v-for="(preview, i) in previews" :key="i" data-drill class="short">
            <div class="about">
              <b class="number">{{ i + 1 }}</b>
              <div>
                <h2>{{ drills[i]!.file.drill.name }}</h2>
                <p>
                  <template v-if="drills[i]!.seconds"
                    >{{ lasting(drills[i]!.seconds!) }} ·
                  </template>
                  {{ ladderWords(drills[i]!.file) }}
                </p>
                <p class="boxes">bpm <i v-for="n in boxes" :key="n" /></p>
              </div>
            </div>
            <TabView v-if="preview.chart" :chart="preview.chart" :zoom="[0.66, 0.8]" compact />
            <p v-for="f in preview.faults" :key="f.text">{{ f.text }}</p>
          </section>
        </template>
        <template v-else>
          <article
            v-for="(preview, i) in previews"
            :key="i"
            data-drill
            :class="{ page: parts.pageEach && i > 0 }"
          >
            <header>
              <h2 v-if="drills.length > 1">{{ i + 1 }}. {{ drills[i]!.file.drill.name }}</h2>
              <p>
                {{ wordsOf(drills[i]!.file) }}
                <template v-if="drills[i]!.seconds">{{ lasting(drills[i]!.seconds!) }}.</template>
              </p>
            </header>
            <template v-if="preview.chart && preview.neck">
              <NeckView
                v-if="parts.neck"
                :neck="preview.neck"
                :chart="preview.chart"
                :gap="22"
                cut
              />
              <StaffView v-if="parts.staff" :chart="preview.chart" />
              <TabView v-if="parts.tab" :chart="preview.chart" :chords="preview.chords" />
              <table v-if="parts.table" class="tempi">
                <tbody>
                  <tr v-for="row in ['Date', 'bpm, even', 'minutes']" :key="row">
                    <th scope="row">{{ row }}</th>
                    <td v-for="n in rows" :key="n" />
                  </tr>
                </tbody>
              </table>
            </template>
            <p v-for="f in preview.faults" :key="f.text">{{ f.text }}</p>
          </article>
        </template>
      </div>
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
.controls .line {
  display: flex;
  align-items: center;
  gap: var(--s2);
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
}
article header {
  break-after: avoid;
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
.top {
  display: grid;
  gap: var(--s1);
  margin-bottom: var(--s3);
}
.top h1 {
  font-size: 22px;
}
.whom {
  display: flex;
  gap: var(--s5);
}
.whom i {
  display: inline-block;
  width: 52mm;
  border-bottom: 1px solid #555;
}
.care {
  font-size: 11px;
}
.short {
  display: grid;
  grid-template-columns: 178px minmax(0, 1fr);
  gap: var(--s2);
  align-items: center;
  border-top: 1px solid #aaa;
  padding: 1px 0;
  break-inside: avoid;
}
.about {
  display: flex;
  gap: var(--s2);
  align-items: baseline;
}
.about .number {
  font-size: 16px;
  min-width: 22px;
}
.about h2 {
  font-size: 13px;
  line-height: 1.2;
}
.about p {
  font-size: 11px;
  line-height: 1.35;
}
.boxes i {
  display: inline-block;
  width: 26px;
  height: 15px;
  border: 1px solid #888;
  margin-left: 2px;
  vertical-align: middle;
}
.text {
  font: inherit;
  padding: 2px 6px;
  border: 1px solid var(--line-2);
  border-radius: var(--round);
}
@media print {
  :global(html, body) {
    background: #fff;
  }
  article {
    break-inside: avoid;
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
