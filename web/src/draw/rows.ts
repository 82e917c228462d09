import type { Chart, ChartNote } from '../api/client'

/** How a pass is broken into rows. */
export interface Fill {
  beatsPerRow: number
  /** The room of one note. */
  step: number
}

/**
 * Breaks a pass into as few rows of whole beats as fit a width, about equally
 * long, and spreads the notes to fill it, each as wide as least to most.
 */
export function fillRows(chart: Chart, width: number, least: number, most: number): Fill {
  const beats = Math.ceil((chart.notes.at(-1)?.beat ?? 0) + 1e-6 + 1 / chart.notesPerBeat - 1e-3)
  const fitting = Math.max(1, Math.floor(width / (chart.notesPerBeat * least)))
  const beatsPerRow = Math.ceil(beats / Math.ceil(beats / fitting))
  const step = Math.min(most, Math.max(least, width / (beatsPerRow * chart.notesPerBeat)))
  return { beatsPerRow, step }
}

/** The beat at which a note is to sound: later where it is the second of two that are swung. */
export function soundBeat({ notesPerBeat, swing = 0.5 }: Chart, { beat }: ChartNote): number {
  const division = Math.round(beat * notesPerBeat)
  const late = swing > 0.5 && notesPerBeat % 2 === 0 && division % 2 === 1
  return late ? beat + (2 * swing - 1) / notesPerBeat : beat
}
