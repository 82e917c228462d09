import type { Analysis, Chart, ChartNote, CourseEvent, ExtraNote, HeardNote } from '../api/client'
import { eventWords } from './notewords'
import { fillRows, type Fill } from './rows'

/** One chart note of a take, at its place on the time line. */
export interface Mark {
  chart: ChartNote
  heard: HeardNote
  x: number
  /** Early or late by more than the ear notices. */
  uneven: boolean
  /** Louder or softer than the mean by more than the ear notices. */
  stands: boolean
  /** The share of the way to the next note in which this one sounds. */
  sounding?: number
  /** Where the next note starts on the time line. */
  next: number
  /** Comments are pinned to it. */
  pinned: boolean
}

export interface ExtraMark {
  extra: ExtraNote
  x: number
}

/** Something that the player did besides playing on, before a note. */
export interface EventMark {
  event: CourseEvent
  x: number
  /** Where the note is that the player went to, where that is another in the same strip. */
  toX?: number
  words: string
}

/** A stretch of one pass that fits the width. */
export interface Strip {
  pass: number
  first: boolean
  marks: Mark[]
  beats: { x: number; beat: number }[]
  extras: ExtraMark[]
  events: EventMark[]
  width: number
}

export const stripMargin = 64

/** Lays the passes of a take under one another, in strips of whole beats. */
export function strips(
  chart: Chart,
  analysis: Analysis,
  width: number,
  pinned: Set<number> = new Set(),
): Strip[] {
  const size = chart.notes.length
  const fill = fillRows(chart, width - stripMargin, 28, 96)
  const all: Strip[] = []
  for (let at = 0; at < analysis.notes.length; at += size) {
    const pass = at / size
    for (const strip of stripsOfPass(
      chart,
      analysis,
      analysis.notes.slice(at, at + size),
      fill,
      pinned,
    ))
      all.push({ ...strip, pass })
  }
  placeExtras(all, analysis, fill.step)
  placeEvents(all, analysis, fill.step)
  return all
}

function stripsOfPass(
  chart: Chart,
  analysis: Analysis,
  heard: HeardNote[],
  { beatsPerRow, step }: Fill,
  pinned: Set<number>,
): Omit<Strip, 'pass'>[] {
  const perBeat = chart.notesPerBeat * step
  const parts: Omit<Strip, 'pass'>[] = []
  chart.notes.forEach((note, i) => {
    const h = heard[i]
    if (!h) return
    const at = Math.floor(note.beat / beatsPerRow + 1e-6)
    const part = (parts[at] ??= {
      first: at === 0,
      marks: [],
      beats: [],
      extras: [],
      events: [],
      width: 0,
    })
    const x = stripMargin + (note.beat - at * beatsPerRow) * perBeat + step / 2
    part.marks.push({
      chart: note,
      heard: h,
      x,
      uneven: h.uneven ?? false,
      stands: h.stands ?? false,
      sounding: soundingOf(analysis, h),
      next: x + step,
      pinned: pinned.has(h.index),
    })
    part.width = x + step / 2
    if (Math.abs(note.beat - Math.round(note.beat)) < 1e-6)
      part.beats.push({ x: x - step / 2, beat: Math.round(note.beat) + 1 })
  })
  return parts
}

/** The share of the interval to the next note in which one sounds, where both were played. */
function soundingOf(analysis: Analysis, h: HeardNote): number | undefined {
  const next = analysis.notes[h.index + 1]
  if (h.t === undefined || h.end === undefined || next?.t === undefined) return undefined
  return Math.max(0, Math.min(1, (h.end - h.t) / Math.max(0.001, next.t - h.t)))
}

/** Puts each extra note between the notes it sounded between. */
function placeExtras(all: Strip[], analysis: Analysis, step: number): void {
  for (const extra of analysis.extras) {
    let best: { strip: Strip; mark: Mark } | undefined
    for (const strip of all)
      for (const mark of strip.marks)
        if (mark.heard.expectedT <= extra.t || !best) best = { strip, mark }
    if (!best) continue
    const { strip, mark } = best
    const next = strip.marks[strip.marks.indexOf(mark) + 1]
    const span = next ? next.heard.expectedT - mark.heard.expectedT : 0
    const share =
      span > 0 ? Math.min(1, Math.max(-1, (extra.t - mark.heard.expectedT) / span)) : 0.5
    strip.extras.push({ extra, x: mark.x + share * step })
  }
}

/** Puts each event before the note that was due, or after the last. */
function placeEvents(all: Strip[], analysis: Analysis, step: number): void {
  const placeOf = (strip: Strip, index: number) => {
    const mark = strip.marks.find((m) => m.heard.index === index)
    return mark && mark.x - step / 2
  }
  for (const event of analysis.course.events) {
    if (['transposed', 'swing', 'otherTempo'].includes(event.kind)) continue // of all of it
    const strip =
      all.find((s) => s.marks.some((m) => m.heard.index === event.before)) ?? all[all.length - 1]
    if (!strip) continue
    strip.events.push({
      event,
      x: placeOf(strip, event.before) ?? strip.width,
      toX: event.to === undefined ? undefined : placeOf(strip, event.to),
      words: eventWords(event, analysis.notes.length / Math.max(1, analysis.course.passes)),
    })
  }
}

/** A length for a value on an axis that ends at limit, kept inside it. */
export function clampTo(value: number, limit: number, length: number): number {
  return (Math.max(-limit, Math.min(limit, value)) / limit) * length
}
