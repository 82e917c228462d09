import type { Chart, ChartNote } from '../api/client'

/** How a division of the beat is written: the note value, and its tuplet. */
export interface Division {
  value: string
  actual: number
  normal: number
}

const divisions: Record<number, Division> = {
  1: { value: 'q', actual: 1, normal: 1 },
  2: { value: '8', actual: 1, normal: 1 },
  3: { value: '8', actual: 3, normal: 2 },
  4: { value: '16', actual: 1, normal: 1 },
  6: { value: '16', actual: 6, normal: 4 },
  8: { value: '32', actual: 1, normal: 1 },
}

export function divisionOf(notesPerBeat: number): Division {
  return divisions[notesPerBeat] ?? { value: '8', actual: 1, normal: 1 }
}

/** A note in a bar, and which of the chart it is. */
export interface StaffNote {
  index: number
  note: ChartNote
}

/** The notes of a pass by bars; the last is as long as its notes, for the pass goes on from there. */
export function barsOf(chart: Chart): StaffNote[][] {
  const perBar = chart.notesPerBeat * (chart.beatsPerBar ?? 4)
  const bars: StaffNote[][] = []
  chart.notes.forEach((note, index) => {
    ;(bars[Math.floor(index / perBar)] ??= []).push({ index, note })
  })
  return bars
}

/** A row of a chart as a chart of its own, and the index of its first note. */
export interface StaffRow {
  from: number
  chart: Chart
}

/** The rows of so many bars each. */
export function rowsOf(chart: Chart, bars: number): StaffRow[] {
  const perRow = bars * chart.notesPerBeat * (chart.beatsPerBar ?? 4)
  const rows: StaffRow[] = []
  for (let from = 0; from < chart.notes.length; from += perRow)
    rows.push({ from, chart: { ...chart, notes: chart.notes.slice(from, from + perRow) } })
  return rows
}

/**
 * How many bars go into each row: as few rows as fit a width, about equally
 * long. A note wants at least so much room.
 */
export function barsPerRow(chart: Chart, width: number, least: number): number {
  const bars = barsOf(chart).length
  const perBar = chart.notesPerBeat * (chart.beatsPerBar ?? 4)
  const fitting = Math.max(1, Math.floor(width / (perBar * least + 24)))
  return Math.ceil(bars / Math.ceil(bars / fitting))
}

/** "F#4" as the staff library names it, written an octave above what sounds. */
export function staffKey(written: string): string {
  const [, step = 'c', sign = '', octave = '4'] = /^([A-G])([#b]*)(-?\d+)$/.exec(written) ?? []
  return `${step.toLowerCase()}${sign}/${Number(octave) + 1}`
}

/** The signatures by so many sharps, or flats where negative, as the staff library names them. */
const signatures = 'Cb Gb Db Ab Eb Bb F C G D A E B F# C#'.split(' ')

export function signatureOf(fifths = 0): string {
  return signatures[fifths + 7] ?? 'C'
}

/** Half a space between two staff lines. */
const step = 5
/** Steps of the staff from C, by letter. */
const letters = ['c', 'd', 'e', 'f', 'g', 'a', 'b']

/** How many steps a note lies above the lowest line of the treble staff, E4 as written. */
export function stepsAboveStaff(written: string): number {
  const key = staffKey(written)
  const octave = Number(key.split('/')[1])
  return 7 * (octave - 4) + letters.indexOf(key[0] ?? 'c') - 2
}

/**
 * The room a row of a chart needs above its top line and below its bottom line:
 * for ledger lines, and for stems, slurs and tuplet numbers beyond them.
 */
export function roomOf(chart: Chart): { above: number; below: number } {
  const steps = chart.notes.map((n) => stepsAboveStaff(n.written ?? 'E3'))
  const numbers = divisionOf(chart.notesPerBeat).actual > 1 ? 16 : 0
  return {
    above: Math.max(36, (Math.max(...steps) - 8) * step + 36),
    below: Math.max(30, -Math.min(...steps) * step + 38) + numbers,
  }
}
