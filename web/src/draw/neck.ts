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

/** The slurs of a chart, each once; up and down between two frets are two. */
export function arcsOf(notes: ChartNote[]): Arc[] {
  const seen = new Map<string, Arc>()
  notes.forEach((note, i) => {
    const before = notes[i - 1]
    if (!before || before.string !== note.string) return
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

/** The frets that have an inlay, and those with a double one. */
export const inlays = [3, 5, 7, 9, 12, 15, 17, 19, 21, 24]
export const doubleInlays = [12, 24]
