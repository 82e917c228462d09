import type { ChartNote, CourseEvent, ExtraNote, HeardNote } from '../api/client'
import { naming } from '../preferences'
import { attackNames, noteName, signed } from './words'

/** Where a chart note lies and how it starts. */
export function placeWords(c: ChartNote): string {
  const hand = c.hand === 'tap' ? 'tapping finger' : 'finger'
  const finger = c.finger === 0 ? 'open' : `${hand} ${c.finger}`
  return `string ${c.string} fret ${c.fret}, ${finger}, ${attackNames[c.attack]}`
}

/** When a note came against its time. */
export function whenWords(h: { deviationMs?: number }): string {
  const ms = h.deviationMs ?? 0
  if (Math.abs(ms) < 0.5) return 'on time'
  return `${Math.abs(ms).toFixed(0)} ms ${ms > 0 ? 'late' : 'early'}`
}

/** How loud a note was against the take. */
export function levelWords(h: { relativeLevelDb?: number }): string {
  return `${signed(h.relativeLevelDb ?? 0, 1)} dB against the mean`
}

/** What became of a chart note, in one line. */
export function noteWords(c: ChartNote, h: HeardNote): string {
  if (h.status === 'missed') return `${placeWords(c)}: missed`
  const parts = [whenWords(h), levelWords(h)]
  if (h.status === 'wrong')
    parts.unshift(
      `wrong note, ${noteName(h.midi ?? 0, naming.value)} instead of ${noteName(c.midi, naming.value)}`,
    )
  if (h.gapMs !== undefined) parts.push(`${h.gapMs.toFixed(0)} ms of silence after it`)
  if (h.ringsDb !== undefined) parts.push('the string before rings on')
  if (h.bendCents !== undefined) parts.push(`dragged by ${h.bendCents.toFixed(0)} cents`)
  return `${placeWords(c)}: ${parts.join(', ')}`
}

/** What an extra note most likely is. */
export function extraWords(e: ExtraNote): string {
  const name = `Extra note ${noteName(e.midi, naming.value)}`
  switch (e.kind) {
    case 'repeated':
      return `${name}: its neighbour once more`
    case 'touched':
      return `${name}: an open string touched`
    default:
      return name
  }
}

/** What happened before a note, shortly; passes have so many notes. */
export function eventWords(e: CourseEvent, size: number): string {
  const number = (index: number) => (index % size) + 1
  switch (e.kind) {
    case 'hesitation':
    case 'stop':
      return `waited ${(e.seconds ?? 0).toFixed(1)} s`
    case 'restart':
      return 'began again'
    case 'replay':
      return `back to ${number(e.to ?? 0)}`
    case 'skip':
      return `on to ${number(e.to ?? 0)}`
    case 'double':
      return 'struck twice'
    case 'correction':
      return 'corrected'
    case 'left':
      return 'left off'
    case 'swing':
      return 'swung'
    case 'transposed':
      return 'on other frets'
    case 'offBeat':
      return 'beside the click'
    case 'otherTempo':
      return 'at another tempo'
  }
}
