<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import {
  Accidental,
  Barline,
  Beam,
  Curve,
  CurvePosition,
  Formatter,
  Renderer,
  Stave,
  StaveNote,
  Tuplet,
  Voice,
} from 'vexflow/bravura'
import { computed, onMounted, ref, watch } from 'vue'

import type { Chart } from '../api/client'
import {
  signatureOf,
  barsOf,
  barsPerRow,
  divisionOf,
  roomOf,
  staffKey,
  type StaffNote,
} from '../draw/staff'
import { count } from '../draw/words'

/** A pass in staff notation, sounding an octave below what is written. */
const props = defineProps<{
  chart: Chart
  now?: number
  /** How much larger than on paper. */
  zoom?: number
  /** It is one row of several: whether it is the first, and the last. */
  row?: { first: boolean; last: boolean }
}>()

const box = ref<HTMLElement>()
const drawing = ref<HTMLDivElement>()
const { width: boxWidth } = useElementSize(box)
const scale = computed(() => props.zoom ?? 1)
const width = computed(() => Math.max(300, boxWidth.value / scale.value))
/** The library draws the top line so far below where a stave is put. */
const headroom = 40
const fourSpaces = 40
const head = 64 // clef and time of the first row
const fingerRow = 16 // below all that belongs to the notes, where nothing can meet it
const fingerSize = 11

/** Room for the signature. */
const signs = computed(() => 11 * Math.abs(props.chart.fifths ?? 0))

function draw() {
  const target = drawing.value
  if (!target || boxWidth.value === 0 || !measured.value) return
  target.replaceChildren()
  const bars = barsOf(props.chart)
  const perRow = barsPerRow(props.chart, width.value - head - signs.value, 22)
  const rows = Math.ceil(bars.length / perRow)
  const { above, below } = roomOf(props.chart)
  const rowHeight = above + fourSpaces + below + fingerRow
  const renderer = new Renderer(target, Renderer.Backends.SVG)
  renderer.resize(width.value * scale.value, rows * rowHeight * scale.value)
  const context = renderer.getContext()
  context.scale(scale.value, scale.value)
  const drawn: (StaveNote | undefined)[] = []
  bars.forEach((bar, b) => {
    const row = Math.floor(b / perRow)
    const inRow = b % perRow
    const lead = signs.value + (row === 0 ? head : 34)
    const barWidth = (width.value - 2 - lead) / perRow
    const x = inRow === 0 ? 1 : 1 + lead + inRow * barWidth
    const stave = new Stave(
      x,
      row * rowHeight + above - headroom,
      inRow === 0 ? lead + barWidth : barWidth,
    )
    if (inRow === 0)
      stave.addClef('treble', 'default', '8vb').addKeySignature(signatureOf(props.chart.fifths))
    if (b === 0 && props.row?.first !== false)
      stave.addTimeSignature(`${props.chart.beatsPerBar ?? 4}/4`)
    if (b === bars.length - 1 && props.row?.last !== false)
      stave.setEndBarType(
        (props.chart.passes ?? 1) > 1 ? Barline.type.REPEAT_END : Barline.type.END,
      )
    stave.setContext(context).draw()
    drawBar(bar, stave, drawn)
    writeFingers(bar, drawn, (row + 1) * rowHeight - 4)
  })
  drawSlurs(drawn)
}

function drawBar(bar: StaffNote[], stave: Stave, drawn: (StaveNote | undefined)[]) {
  const { chart } = props
  const division = divisionOf(chart.notesPerBeat)
  const notes = bar.map(({ index, note }) => {
    const made = new StaveNote({
      keys: [staffKey(note.written ?? 'B3')],
      duration: division.value,
    })
    made.autoStem()
    made.setAttribute('id', `staff-${index}`)
    drawn[index] = made
    return made
  })
  const tuplets: Tuplet[] = []
  const beams: Beam[] = []
  for (let at = 0; at < notes.length; at += chart.notesPerBeat) {
    const beat = notes.slice(at, at + chart.notesPerBeat)
    if (division.value !== 'q' && beat.length > 1) beams.push(new Beam(beat, true))
    if (division.actual > 1 && beat.length > 1)
      tuplets.push(
        new Tuplet(beat, {
          numNotes: division.actual,
          notesOccupied: division.normal,
          bracketed: false,
          ratioed: false,
          // At the stems: at the heads are slurs.
          location: beat[0]!.getStemDirection(),
        }),
      )
  }
  const voice = new Voice({ numBeats: chart.beatsPerBar ?? 4, beatValue: 4 }).setMode(
    Voice.Mode.SOFT,
  )
  voice.addTickables(notes)
  Accidental.applyAccidentals([voice], signatureOf(chart.fifths))
  new Formatter().joinVoices([voice]).formatToStave([voice], stave)
  const context = stave.checkContext()
  voice.draw(context, stave)
  beams.forEach((b) => b.setContext(context).draw())
  tuplets.forEach((t) => t.setContext(context).draw())
}

/** Fingers stand in a row of their own below the staff: 0 is the open string, T a tap. */
function writeFingers(bar: StaffNote[], drawn: (StaveNote | undefined)[], y: number) {
  for (const { index, note } of bar) {
    const made = drawn[index]
    if (!made) continue
    const context = made.checkContext()
    context.setFont('Atkinson Hyperlegible Next Variable', fingerSize)
    const text = note.hand === 'tap' ? 'T' : String(note.finger)
    const head = (made.getNoteHeadBeginX() + made.getNoteHeadEndX()) / 2
    context.fillText(text, head - context.measureText(text).width / 2, y)
  }
}

/** Slurs join the notes that are hammered or pulled to the one before, within a row. */
function drawSlurs(drawn: (StaveNote | undefined)[]) {
  props.chart.notes.forEach((note, i) => {
    const from = drawn[i - 1]
    const to = drawn[i]
    if (!from || !to || !['hammer', 'pull', 'slide'].includes(note.attack)) return
    if (from.getStave()?.getY() !== to.getStave()?.getY()) return
    new Curve(from, to, {
      position: CurvePosition.NEAR_HEAD,
      positionEnd: CurvePosition.NEAR_HEAD,
      cps: [
        { x: 0, y: 9 },
        { x: 0, y: 9 },
      ],
    })
      .setContext(to.checkContext())
      .draw()
  })
}

/** The type of the music is there: before, its signs are measured wrongly. */
const measured = ref(false)
onMounted(() =>
  document.fonts
    .load('30pt Bravura')
    .catch(() => undefined) // then it is drawn as well as it can be
    .then(() => (measured.value = true)),
)
watch([() => props.chart, width, scale, measured], draw)
watch(
  () => props.now,
  (now, before) => {
    drawing.value?.querySelector(`#vf-staff-${before}`)?.classList.remove('sounds')
    drawing.value?.querySelector(`#vf-staff-${now}`)?.classList.add('sounds')
  },
)
</script>

<template>
  <div
    ref="box"
    class="staff"
    role="img"
    :aria-label="`Staff notation, ${count(chart.notes.length, 'note')}`"
  >
    <div ref="drawing" />
  </div>
</template>

<style scoped>
.staff {
  min-width: 0;
  overflow: hidden;
}
.staff :deep(svg) {
  display: block;
  fill: var(--ink);
  stroke: var(--ink);
}
.staff :deep(path),
.staff :deep(text) {
  fill: var(--ink);
}
/* What the library lays over a note to be pressed is seen while it sounds. */
.staff :deep(.sounds > rect) {
  opacity: 0.28;
}
</style>
