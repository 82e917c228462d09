/** A note that an instrument tells of itself, in s from the start of the recording. */
export interface Struck {
  on: number
  /** 0 while it is held. */
  off: number
  midi: number
  velocity: number
}

/** Ticks of a MIDI file to a second; times are rounded to them, so that the studio has the same. */
const ticks = 10_000
export const asTick = (seconds: number): number => Math.max(0, Math.round(seconds * ticks)) / ticks

/** A number in seven bits a byte, as MIDI files have it. */
function variable(value: number): number[] {
  const bytes = [value & 0x7f]
  for (let rest = value >> 7; rest > 0; rest >>= 7) bytes.unshift((rest & 0x7f) | 0x80)
  return bytes
}

/** Writes notes as a Standard MIDI File, format 0, one second to the beat. */
export function encodeMidi(struck: Struck[]): Blob {
  const events = struck
    .flatMap(({ on, off, midi, velocity }) => [
      { at: Math.round(on * ticks), bytes: [0x90, midi, velocity] },
      ...(off > on ? [{ at: Math.round(off * ticks), bytes: [0x80, midi, 0] }] : []),
    ])
    // What is let go at once with what is struck goes first.
    .sort((a, b) => a.at - b.at || (a.bytes[0] ?? 0) - (b.bytes[0] ?? 0))
  const track = [0, 0xff, 0x51, 3, 0x0f, 0x42, 0x40] // 1,000,000 µs a beat
  let now = 0
  for (const { at, bytes } of events) {
    track.push(...variable(at - now), ...bytes)
    now = at
  }
  track.push(0, 0xff, 0x2f, 0)
  const word = (n: number) => [(n >> 24) & 0xff, (n >> 16) & 0xff, (n >> 8) & 0xff, n & 0xff]
  const text = (s: string) => [...s].map((c) => c.charCodeAt(0))
  const head = [...text('MThd'), ...word(6), 0, 0, 0, 1, ticks >> 8, ticks & 0xff]
  const bytes = [...head, ...text('MTrk'), ...word(track.length), ...track]
  return new Blob([Uint8Array.from(bytes)], { type: 'audio/midi' })
}

/** What is told by an instrument at a moment of the page's clock, in ms. */
export interface MidiEvent {
  at: number
  midi: number
  /** 0 lets it go. */
  velocity: number
}

/** A pause within a take, s: somebody who has made one may make another. */
const pause = 1.5

/** Gathers what is struck while a take is played; times are from its start, by the page's clock in ms. */
export class StrikeLog {
  readonly struck: Struck[] = []
  private readonly held = new Map<number, Struck>()

  /** Whether there was a pause between two notes. */
  paused = false
  private last?: number

  constructor(private readonly start: number) {}

  /** Seconds since the last note was begun, at a moment of the page's clock; infinite where there was none. */
  idleAt(now: number): number {
    return this.last === undefined ? Infinity : (now - this.last) / 1000
  }

  /** Takes an event in; returns the note that it begins, if it does. */
  take({ at, midi, velocity }: MidiEvent): Struck | undefined {
    const seconds = asTick((at - this.start) / 1000)
    const held = this.held.get(midi)
    if (held && held.off === 0) held.off = Math.max(seconds, held.on)
    this.held.delete(midi)
    if (velocity === 0 || at < this.start) return
    if (this.idleAt(at) > pause && this.last !== undefined) this.paused = true
    this.last = at
    const note = { on: seconds, off: 0, midi, velocity }
    this.held.set(midi, note)
    this.struck.push(note)
    return note
  }
}
