import type { Analysis, Chart, Contrast, Habit, HeardNote } from '../api/client'
import { levelWords, noteWords, placeWords, whenWords } from './notewords'
import { count } from './words'

/** One bar for each note of the chart. */
export interface NoteRow {
  name: string
  lane: 'timing' | 'level'
  cells: NoteCell[]
}

export interface NoteCell {
  /** From −1 to 1, below the line; undefined where nothing was played right. */
  down?: number
  /** The ear notices it. */
  beyond: boolean
  words: string
  /** Index of the note in the take, where it is one. */
  index?: number
}

/** Where the axes of time and level end: well beyond what is heard, so that what is inaudible looks small. */
export function timingLimit(analysis: Analysis): number {
  return Math.max(24, analysis.timing.audibleMs * 4)
}
export function levelLimit(analysis: Analysis): number {
  return analysis.level.audibleDb * 5
}

/** A row of timing for each pass. */
export function passRows(chart: Chart, analysis: Analysis): NoteRow[] {
  const size = chart.notes.length
  const limit = timingLimit(analysis)
  const cell = (h: HeardNote, i: number): NoteCell => {
    const note = chart.notes[i]
    return {
      down: h.status === 'played' ? (h.deviationMs ?? 0) / limit : undefined,
      beyond: h.uneven ?? false,
      words: note ? noteWords(note, h) : '',
      index: h.index,
    }
  }
  return Array.from({ length: Math.ceil(analysis.notes.length / size) }, (_, p) => ({
    name: `Pass ${p + 1}`,
    lane: 'timing',
    cells: analysis.notes.slice(p * size, (p + 1) * size).map(cell),
  }))
}

/** Two takes of one chart under one another: timing, then level, on one scale. */
export function contrastRows(chart: Chart, analysis: Analysis, contrast: Contrast): NoteRow[] {
  const row = (
    name: string,
    lane: NoteRow['lane'],
    which: 'before' | 'after',
    bar: (h: Habit) => { down: number; beyond: boolean; words: string },
  ): NoteRow => ({
    name,
    lane,
    cells: contrast.places.map((place, i) => {
      const h = place[which]
      const note = chart.notes[i]
      const where = note ? `${placeWords(note)}: ` : ''
      if (h.count === 0) return { beyond: false, words: `${where}not played right` }
      const { words, ...of } = bar(h)
      const passes = h.count > 1 ? `, mean of ${count(h.count, 'pass', 'passes')}` : ''
      return { ...of, words: `${where}${words}${passes}` }
    }),
  })
  const timing = (h: Habit) => ({
    down: h.deviationMs / timingLimit(analysis),
    beyond: h.uneven,
    words: whenWords(h),
  })
  const level = (h: Habit) => ({
    down: -h.relativeLevelDb / levelLimit(analysis),
    beyond: h.stands,
    words: levelWords(h),
  })
  return [
    row('Time, earlier', 'timing', 'before', timing),
    row('Time, later', 'timing', 'after', timing),
    row('Level, earlier', 'level', 'before', level),
    row('Level, later', 'level', 'after', level),
  ]
}
