import type { Attack, ChartNote, Neck } from '../api/client'

/** A place on the neck that a chart uses. */
export interface Place {
  string: number
  fret: number
  finger: number
  hand: ChartNote['hand']
}

/** Two places of one string that follow each other by a slur. */
export interface Arc {
  string: number
  from: number
  to: number
  attack: Attack
}

/** The places of a chart, each once. */
export function placesOf(notes: ChartNote[]): Place[] {
  const seen = new Map<string, Place>()
  for (const { string, fret, finger, hand } of notes)
    seen.set(`${string}/${fret}`, { string, fret, finger, hand })
  return [...seen.values()]
}

/** What is played from one place of the hand. */
export interface Grip {
  /** The fret under the first finger. */
  position: number
  /** Indices of the chart's notes. */
  notes: Set<number>
}

/** The fret under the first finger with which a note is fretted; none for open strings and taps. */
function positionOf(n: ChartNote): number | undefined {
  return n.hand === 'fret' && n.fret > 0 && n.finger > 0 ? n.fret - n.finger + 1 : undefined
}

/** By how many frets the hand may have moved in what is drawn as one picture. */
const withinOnePicture = 3

/**
 * The places of the hand, in the order in which it comes to them. Where it hardly moves, and no
 * place of the neck has two fingers, all is one picture.
 */
export function gripsOf(notes: ChartNote[]): Grip[] {
  const cells = cellsOf(notes)
  const at = cells.map((c) => lowest(c.map((i) => notes[i]!))).filter((p) => p !== undefined)
  const moved = at.length ? Math.max(...at) - Math.min(...at) : 0
  if (!isCrowded(notes) && moved <= withinOnePicture)
    return [{ position: lowest(notes) ?? 0, notes: new Set(notes.keys()) }]
  const grips: Grip[] = []
  let now: Grip | undefined
  for (const cell of cells) {
    const position = lowest(cell.map((i) => notes[i]!)) ?? now?.position ?? at[0] ?? 0
    if (now?.position !== position) now = grips.find((g) => g.position === position)
    if (!now) grips.push((now = { position, notes: new Set() }))
    for (const i of cell) now.notes.add(i)
  }
  return grips
}

function lowest(notes: ChartNote[]): number | undefined {
  const at = notes.map(positionOf).filter((p) => p !== undefined)
  return at.length ? Math.min(...at) : undefined
}

/** Whether a place of the neck has two fingers, or both hands. */
function isCrowded(notes: ChartNote[]): boolean {
  const seen = new Map<string, string>()
  return notes.some((n) => {
    const by = `${n.hand}${n.finger}`
    const at = `${n.string}/${n.fret}`
    const before = seen.get(at) ?? by
    seen.set(at, by)
    return before !== by
  })
}

/** The notes of each cell; one in which a place gets another finger is parted there. */
function cellsOf(notes: ChartNote[]): number[][] {
  const cells: number[][] = []
  notes.forEach((n, i) => {
    const cell = cells.at(-1)
    const before = notes[i - 1]
    const goes = before && before.cell === n.cell && before.part === n.part
    if (cell && goes && !isCrowded([...cell.map((j) => notes[j]!), n])) cell.push(i)
    else cells.push([i])
  })
  return cells
}

/** The slurs of a chart, each once; up and down between two frets are two. */
export function arcsOf(notes: ChartNote[], of: Set<number> = new Set(notes.keys())): Arc[] {
  const seen = new Map<string, Arc>()
  notes.forEach((note, i) => {
    const before = notes[i - 1]
    if (!before || before.string !== note.string || !of.has(i) || !of.has(i - 1)) return
    if (note.attack !== 'hammer' && note.attack !== 'pull') return
    const arc = { string: note.string, from: before.fret, to: note.fret, attack: note.attack }
    seen.set(`${arc.string}/${arc.from}/${arc.to}`, arc)
  })
  return [...seen.values()]
}

/** What the fretting hand covers from its first grip: frets and strings. */
export interface HandBox {
  low: number
  high: number
  thin: number
  thick: number
}

/** The box of the fretted notes at the place the drill begins at; none if all are open. */
export function handBox(notes: ChartNote[]): HandBox | undefined {
  const held = notes.filter((n) => n.hand === 'fret' && n.fret > 0)
  const first = held.filter((n) => (n.cell ?? 0) === (held[0]?.cell ?? 0))
  if (first.length === 0) return undefined
  const frets = first.map((n) => n.fret)
  const strings = held.map((n) => n.string)
  return {
    low: Math.min(...frets),
    high: Math.max(...frets),
    thin: Math.min(...strings),
    thick: Math.max(...strings),
  }
}

/** Which frets to show: all where there is room, else those around the notes. */
export function fretWindow(neck: Neck, notes: ChartNote[], whole: boolean): [number, number] {
  if (whole || notes.length === 0) return [0, neck.frets]
  const frets = notes.map((n) => n.fret)
  const from = Math.max(0, Math.min(...frets) - 2)
  return [from, Math.min(neck.frets, Math.max(from + 6, Math.max(...frets) + 1))]
}

/** Places frets at their true distances across a width. */
export class NeckScale {
  private readonly start: number
  private readonly perMm: number

  constructor(
    private readonly neck: Neck,
    readonly from: number,
    readonly to: number,
    left: number,
    width: number,
  ) {
    const first = this.mm(from)
    this.perMm = width / (this.mm(to) - first)
    this.start = left - first * this.perMm
  }

  private mm(fret: number): number {
    return this.neck.fretMm[fret] ?? 0
  }

  /** Where the fret wire is. */
  wire(fret: number): number {
    return this.start + this.mm(fret) * this.perMm
  }

  /** The fret whose finger goes at x; 0 is the open string. */
  fretAt(x: number): number {
    for (let fret = this.from; fret <= this.to; fret++) if (x <= this.wire(fret)) return fret
    return this.to
  }

  /** Where the finger goes: behind the wire, nearer to it than to the one before. */
  finger(fret: number): number {
    if (fret === 0) return this.wire(0) - 14
    return this.wire(fret) - (this.wire(fret) - this.wire(fret - 1)) * 0.42
  }
}

/** Half the width of a mark, so that those of neighbouring frets stay apart. */
export function markRadius(scale: NeckScale, places: Place[], gap: number): number {
  const frets = [...new Set(places.map((p) => p.fret).filter((f) => f > 0))].sort((a, b) => a - b)
  const apart = frets
    .filter((f, i) => frets[i - 1] === f - 1)
    .map((f) => scale.finger(f) - scale.finger(f - 1))
  return Math.min(10, gap * 0.48, ...apart.map((d) => d * 0.48))
}

/** The frets that have an inlay, and those with a double one. */
export const inlays = [3, 5, 7, 9, 12, 15, 17, 19, 21, 24]
export const doubleInlays = [12, 24]
