import type { Chart, ChartNote } from '../api/client'
import { fillRows } from './rows'

/** One note of a tablature, at its place in a row. */
export interface TabNote extends ChartNote {
  index: number
  x: number
  /** The x of the note this one is slurred from, where that is in the same row. */
  slurFrom?: number
}

/** A beat line, heavier where a bar begins. */
export interface TabBeat {
  x: number
  beat: number
  bar: boolean
}

export interface TabRow {
  notes: TabNote[]
  beats: TabBeat[]
  width: number
}

/** The room at both ends of a row, in the units of the drawing. */
export const tabMargin = 26

/** How much room a note has at the least and at the most, on paper. */
const onPaper: [number, number] = [28, 44]

/**
 * Breaks one pass of a chart into rows of whole beats that fill a width. Notes
 * are spaced by time, each with so much room.
 */
export function tabRows(chart: Chart, width: number, [least, most] = onPaper): TabRow[] {
  const { beatsPerRow, step } = fillRows(chart, width - 2 * tabMargin, least, most)
  const perBeat = chart.notesPerBeat * step
  const rows: TabRow[] = []
  chart.notes.forEach((note, index) => {
    const at = Math.floor(note.beat / beatsPerRow + 1e-6)
    const row = (rows[at] ??= { notes: [], beats: [], width: 0 })
    const x = tabMargin + (note.beat - at * beatsPerRow) * perBeat + step / 2
    const before = row.notes.at(-1)
    const slurred = ['hammer', 'pull', 'slide'].includes(note.attack)
    row.notes.push({
      ...note,
      index,
      x,
      slurFrom: slurred && before?.index === index - 1 ? before.x : undefined,
    })
  })
  rows.forEach((row, at) => {
    const last = row.notes.at(-1)
    row.width = (last?.x ?? 0) + step / 2 + tabMargin
    for (let beat = 0; beat < beatsPerRow; beat++) {
      const x = tabMargin + beat * perBeat
      const number = at * beatsPerRow + beat
      if (last && x < last.x)
        row.beats.push({ x, beat: number + 1, bar: number % (chart.beatsPerBar ?? 4) === 0 })
    }
  })
  return rows
}

/** The parts that begin in a row, at their places; the part that goes on there is told again. */
export function partsStarting(
  { parts, notes }: Chart,
  row: TabRow,
): { x: number; title: string }[] {
  if (!parts) return []
  return row.notes.flatMap((n, i) => {
    const part = n.part ?? 0
    const begins = n.index === 0 || (notes[n.index - 1]?.part ?? 0) !== part
    return begins || i === 0 ? [{ x: n.x - 12, title: parts[part] ?? '' }] : []
  })
}

/** How an attack is written above a slurred note. */
export const attackMarks: Record<ChartNote['attack'], string> = {
  pick: '',
  hammer: 'H',
  pull: 'P',
  tap: 'T',
  slide: 'S',
  nowhere: 'N',
  bend: 'B',
}
