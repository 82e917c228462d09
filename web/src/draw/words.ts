import type { Assignment, Attack, Drill, SavedDrill, Source } from '../api/client'

/** "1 note", "2 notes". */
export function count(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`
}

const sharps = ['C', 'C♯', 'D', 'D♯', 'E', 'F', 'F♯', 'G', 'G♯', 'A', 'A♯', 'B']

/** The name of a MIDI note, 69 being A4. */
export function noteName(midi: number): string {
  return `${sharps[((midi % 12) + 12) % 12]}${Math.floor(midi / 12) - 1}`
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
  bend: 'bend',
}

const slurNames = { hammer: 'hammer-ons', pull: 'pull-offs', both: 'hammer-ons and pull-offs' }

/** A drill's pattern in a few words. */
export function patternWords(drill: Drill): string {
  const p = drill.pattern
  if (p.kind === 'fingerPerFret') return `One finger per fret ${p.order.join('-')}, picked`
  return `Slurs ${p.combinations.map((c) => c.join('')).join(', ')}, ${slurNames[p.slur]}`
}

/** Where a drill lies and how it moves, in a few words. */
export function pathWords(drill: Drill): string {
  const first = drill.strings[0]
  const last = drill.strings.at(-1)
  const across = drill.strings.length === 1 ? `string ${first}` : `strings ${first} to ${last}`
  const back = drill.thereAndBack && drill.strings.length > 1 ? ' and back' : ''
  return `Position ${drill.position}, ${across}${back}`
}

export function ladderWords(saved: SavedDrill | Assignment): string {
  const l = 'file' in saved ? saved.file.ladder : saved.ladder
  return `${l.startBpm} to ${l.targetBpm} bpm by ${l.stepBpm}`
}

export const sourceNames: Record<Source, string> = {
  microphone: 'microphone',
  file: 'file',
  simulated: 'simulated player',
}

const day = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short' })
const time = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' })

export function dayOf(iso: string): string {
  return day.format(new Date(iso))
}

export function momentOf(iso: string): string {
  return `${dayOf(iso)}, ${time.format(new Date(iso))}`
}
