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

/** A note in a bar; a rest where the pass ends before the bar. */
export interface StaffNote {
  index?: number
  note?: ChartNote
}

/** The notes of a pass by bars, each as full as its beats, the last filled with rests. */
export function barsOf(chart: Chart): StaffNote[][] {
  const perBar = chart.notesPerBeat * (chart.beatsPerBar ?? 4)
  const bars: StaffNote[][] = []
  chart.notes.forEach((note, index) => {
    ;(bars[Math.floor(index / perBar)] ??= []).push({ index, note })
  })
  const last = bars.at(-1)
  while (last && last.length < perBar) last.push({})
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
export function staffKey(written: string): { key: string; accidental: string } {
  const [, step = 'c', accidental = '', octave = '4'] =
    /^([A-G])([#b]*)(-?\d+)$/.exec(written) ?? []
  return { key: `${step.toLowerCase()}${accidental}/${Number(octave) + 1}`, accidental }
}

/**
 * The accidental to draw at each note of a bar: only where it differs from the
 * last one on that line in the bar, a natural where it is taken back.
 */
export function accidentalsOf(bar: StaffNote[]): (string | undefined)[] {
  const standing = new Map<string, string>()
  return bar.map(({ note }) => {
    if (!note?.written) return undefined
    const { key, accidental } = staffKey(note.written)
    const line = key.replace(/[#b]+/, '')
    if ((standing.get(line) ?? '') === accidental) return undefined
    standing.set(line, accidental)
    return accidental || 'n'
  })
}

/** Half a space between two staff lines. */
const step = 5
/** Steps of the staff from C, by letter. */
const letters = ['c', 'd', 'e', 'f', 'g', 'a', 'b']

/** How many steps a note lies above the lowest line of the treble staff, E4 as written. */
export function stepsAboveStaff(written: string): number {
  const { key } = staffKey(written)
  const octave = Number(key.split('/')[1])
  return 7 * (octave - 4) + letters.indexOf(key[0] ?? 'c') - 2
}

/**
 * The room a row of a chart needs above its top line and below its bottom line:
 * for ledger lines, and for stems, slurs and tuplet numbers beyond them.
 */
export function roomOf(chart: Chart): { above: number; below: number } {
  const steps = chart.notes.map((n) => stepsAboveStaff(n.written ?? 'E3'))
  return {
    above: Math.max(36, (Math.max(...steps) - 8) * step + 36),
    below: Math.max(30, -Math.min(...steps) * step + 38),
  }
}
