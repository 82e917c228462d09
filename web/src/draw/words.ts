import type { Attack, Drill, DrillFile, Key, Rung, Source } from '../api/client'
import type { Naming } from '../preferences'

/** "1 note", "2 notes". */
export function count(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`
}

const sharps = ['C', 'C♯', 'D', 'D♯', 'E', 'F', 'F♯', 'G', 'G♯', 'A', 'A♯', 'B']

const names: Record<Naming, readonly string[]> = {
  english: sharps,
  // B is H there, and B♭ is B.
  german: ['C', 'Cis', 'D', 'Dis', 'E', 'F', 'Fis', 'G', 'Gis', 'A', 'B', 'H'],
  solfege: ['Do', 'Do♯', 'Re', 'Re♯', 'Mi', 'Fa', 'Fa♯', 'Sol', 'Sol♯', 'La', 'La♯', 'Si'],
}

/** The name of a MIDI note, 69 being A4, as it is called somewhere. */
export function noteName(midi: number, naming: Naming = 'english'): string {
  return `${names[naming][((midi % 12) + 12) % 12]}${Math.floor(midi / 12) - 1}`
}

/** The MIDI note of a name such as "E2", "F♯4" or "Bb3"; undefined for what is none. */
export function noteNumber(name: string): number | undefined {
  const [, step, sign, octave] = /^([A-Ga-g])([#♯b♭]?)(-?\d)$/.exec(name) ?? []
  if (!step || octave === undefined) return undefined
  const natural = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 }[step.toUpperCase()] ?? 0
  const alter = sign === '' ? 0 : sign === '#' || sign === '♯' ? 1 : -1
  return 12 * (Number(octave) + 1) + natural + alter
}

export function signed(value: number, digits = 0): string {
  const text = Math.abs(value).toFixed(digits)
  if (Number(text) === 0) return text
  return (value < 0 ? '−' : '+') + text
}

export const attackNames: Record<Attack, string> = {
  pick: 'picked',
  hammer: 'hammer-on',
  pull: 'pull-off',
  tap: 'tap',
  slide: 'slide',
  nowhere: 'hammer-on from nowhere',
  bend: 'bend',
}

const slurNames = {
  hammer: 'hammer-ons',
  pull: 'pull-offs',
  both: 'hammer-ons and pull-offs',
  asWritten: 'as written',
}
const orderNames = {
  up: 'up',
  down: 'down',
  both: 'up and down',
  cascade: 'as a cascade',
  oneByOne: 'finger by finger',
}

function orders(of: number[][]): string {
  if (of.length > 3) return `${of.length} orders`
  return of.map((o) => o.join('-')).join(', ')
}

/** What a drill plays, in a few words: its pattern, or its parts. */
export function patternWords(drill: Drill): string {
  if (!drill.then?.length) return patternOf(drill)
  const parts = [drill, ...drill.then]
  const titles = parts.slice(0, 4).map((p, i) => p.title || `part ${i + 1}`)
  const more = parts.length > 4 ? ` and ${parts.length - 4} more` : ''
  return `${parts.length} parts without a stop: ${titles.join(', ')}${more}`
}

function patternOf({ pattern: p, key }: Drill): string {
  const inKey = key ? ` in ${keyName(key)}` : ''
  switch (p.kind) {
    case 'slurCombinations':
      return `Slurs ${p.combinations.map((c) => c.join('')).join(', ')}, ${slurNames[p.slur]}`
    case 'trill':
      return `Trill ${p.fingers.join('-')}${p.either ? ', from either finger' : ''}`
    case 'fingerPerFret':
      return `One finger per fret ${orders(p.orders)}`
    case 'diagonal':
      return `Diagonal ${orders(p.orders)}`
    case 'stringPair':
      return `String pairs ${orders(p.orders)}`
    case 'scaleRun':
      return `Run${inKey}, ${p.perString.join('-')} a string, ${orderNames[p.order]}`
    case 'mixedRun':
      return `Mixed run${inKey}, ${p.slurred} slurred and ${p.picked} picked`
    case 'oneString':
      return `Along one string${inKey}, ${count(p.steps.length, 'note')} a cell`
    case 'skipArpeggio':
      return `String-skipping arpeggio${inKey}, ${orderNames[p.order]}`
    case 'triad':
      return `Small triads${inKey}`
    case 'tapping':
      return p.atFrets ? `Tapped cell, fret ${p.tapAt}` : `Tapped cell, ${p.tapAt} frets above`
    case 'bentTaps':
      return `Taps over a bent note, ${p.taps.join(', ')}`
    case 'twoHands':
      return `Two-hand arpeggio on ${count(p.fretted.length, 'string')}`
    case 'twoStringShape':
      return `Two-string shape ${orderNames[p.order]}`
    case 'openStrings':
      return `Open-string synchronisation ${p.fingers.join('-')}`
    case 'chordShape':
      return `Chord shape with finger ${p.leaper} leaping`
    case 'free':
      return `${count(p.notes.length, 'note')} of one's own`
  }
}

const flats = ['C', 'D♭', 'D', 'E♭', 'E', 'F', 'G♭', 'G', 'A♭', 'A', 'B♭', 'B']

interface Root {
  id: string
  class: number
  spelled?: 'sharp' | 'flat'
  name: string
}

/** The roots of each pitch class: one, or both ways of spelling it. */
export const roots: Root[][] = sharps.map((sharp, at) => {
  const flat = flats[at] ?? sharp
  if (sharp === flat) return [{ id: `${at} `, class: at, name: sharp }]
  return [
    { id: `${at} sharp`, class: at, spelled: 'sharp', name: sharp },
    { id: `${at} flat`, class: at, spelled: 'flat', name: flat },
  ]
})

/** "A minor pentatonic" from the ids of the contract. */
export function keyName(key: Key): string {
  const words = key.scale === 'own' ? 'own scale' : key.scale.replace(/([A-Z0-9])/g, ' $1')
  const names = key.spelled === 'flat' ? flats : sharps
  return `${names[key.root]} ${words.toLowerCase()}`
}

/** Where a drill lies and how it moves, in a few words. */
const withins = { up: 'up', down: 'down', both: 'up and down' } as const

export function pathWords({ path }: Drill): string {
  const first = path.strings[0]
  const last = path.strings.at(-1)
  const across = path.strings.length === 1 ? `string ${first}` : `strings ${first} to ${last}`
  const back = path.back !== 'none' && path.strings.length > 1 ? ' and back' : ''
  const by = path.shift.count > 0 ? path.shift.by : 0
  const shift =
    by === 0 ? '' : `, moving ${by > 0 ? 'up' : 'down'} ${count(path.shift.count, 'time')}`
  const within = path.within ? `, each string ${withins[path.within]}` : ''
  return `Position ${path.position}, ${across}${back}${within}${shift}`
}

/** "6 min", "45 s", "1 min 30 s". */
export function lasting(seconds: number): string {
  const minutes = Math.floor(seconds / 60)
  const rest = Math.round(seconds % 60)
  return [minutes ? `${minutes} min` : '', rest || !minutes ? `${rest} s` : '']
    .filter(Boolean)
    .join(' ')
}

/** How the beat is divided: "4 notes a beat", or "4 notes a beat, swung by 67 %". */
export function divisionWords(of: { notesPerBeat: number; swing?: number }): string {
  const swung = of.swing && of.swing > 0.5 ? `, swung by ${Math.round(100 * of.swing)} %` : ''
  return count(of.notesPerBeat, 'note') + ' a beat' + swung
}

/** A rung: by its tempo alone where the click is divided alike on all of them. */
export function rungWords(r: Rung, mixed = false): string {
  return mixed ? `${r.bpm} bpm, ${count(r.notesPerBeat, 'note')} a beat` : `${r.bpm} bpm`
}

/** The same where there is little room. */
export function rungShort(r: Rung, mixed = false): string {
  return mixed ? `${r.bpm} bpm × ${r.notesPerBeat}` : `${r.bpm} bpm`
}

/** A ladder in a few words; how often the notes are doubled says itself by their number. */
export function ladderWords({ ladder: l, drill }: Pick<DrillFile, 'ladder' | 'drill'>): string {
  const n = drill.rhythm.notesPerBeat
  const most = n * 2 ** (l.doublings ?? 0)
  switch (l.rule) {
    case 'percent':
      return `${l.startBpm} to ${l.targetBpm} bpm by ${l.stepPercent} %`
    case 'doubling':
      return `${l.startBpm} bpm, ${n} to ${count(most, 'note')} a beat`
    case 'both':
      return `${l.startBpm} to ${l.targetBpm} bpm by ${l.stepBpm}, then again, up to ${count(most, 'note')} a beat`
    case 'list':
      return count(l.list?.length ?? 0, 'rung') + ' of its own'
    default:
      return `${l.startBpm} to ${l.targetBpm} bpm by ${l.stepBpm}`
  }
}

/** Why a take counts for nothing. */
export const asideNames = {
  tryOut: 'a try-out',
  ownTempo: 'at a tempo of one’s own',
  tapped: 'tapped',
}

export const sourceNames: Record<Source, string> = {
  microphone: 'microphone',
  file: 'file',
  simulated: 'simulated player',
  midi: 'MIDI instrument',
  key: 'tapped key',
}

const day = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short' })
const time = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' })

const dayWithYear = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
})

/** The year in place of the weekday where it is long ago, or far ahead. */
export function dayOf(iso: string): string {
  const far = Math.abs(Date.parse(iso) - Date.now()) > 300 * 86_400_000
  return (far ? dayWithYear : day).format(new Date(iso))
}

const date = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  timeZone: 'UTC',
})

/** A day that comes as its midnight in UTC, wherever it is read. */
export function dateOf(iso: string): string {
  return date.format(new Date(iso))
}

export function momentOf(iso: string): string {
  return `${dayOf(iso)}, ${time.format(new Date(iso))}`
}
