import { describe, expect, it } from 'vitest'

import { isOver, Playing } from './playing'
import { scheduleOf } from './schedule'

const rate = 48000

/** Plucked notes at the given seconds, that die away as strings do. */
function plucked(seconds: number, notes: number[], noise = 1e-4): Float32Array {
  const x = new Float32Array(seconds * rate)
  for (let i = 0; i < x.length; i++) x[i] = noise * Math.sin(i * i)
  for (const at of notes)
    for (let i = Math.round(at * rate); i < x.length; i++) {
      const t = i / rate - at
      x[i] = (x[i] ?? 0) + 0.2 * Math.exp(-3 * t) * Math.sin(2 * Math.PI * 220 * t)
    }
  return x
}

/** When a take of the schedule ends that sounds like this, s of the sound. */
function endOf(x: Float32Array, bpm: number, notesPerBeat: number, beats: number): number {
  const asked = { bpm, beatsPerPass: beats, passes: 1, beatsPerBar: 4 }
  const s = scheduleOf(asked, -(4 * 60) / bpm) // the first note is at 0
  const playing = new Playing(rate)
  for (let at = 0; at < x.length; at += 1024) {
    playing.hear(x.subarray(at, at + 1024))
    if (isOver(at / rate, s, 60 / bpm / notesPerBeat, playing)) return at / rate
  }
  return Infinity
}

const every = (interval: number, count: number) =>
  Array.from({ length: count }, (_, i) => i * interval)

describe('the end of a take', () => {
  // 16 notes at 90 bpm, 4 a beat: due until 2.667 s.
  it('comes half a second after the last note of who is on time', () => {
    const end = endOf(plucked(8, every(1 / 6, 16)), 90, 4, 4)
    expect(end).toBeGreaterThan(3.1)
    expect(end).toBeLessThan(3.3)
  })
  it('waits for who has fallen behind', () => {
    const slow = every(0.22, 16) // the last at 3.3 s
    const end = endOf(plucked(8, slow), 90, 4, 4)
    expect(end).toBeGreaterThan(3.3 + 0.3)
    expect(end).toBeLessThan(3.3 + 0.8)
  })
  it('waits for who has paused', () => {
    const notes = [...every(1 / 6, 8), ...every(1 / 6, 8).map((t) => t + 3.2)]
    const end = endOf(plucked(12, notes.slice(0, 16)), 90, 4, 4)
    expect(end).toBeLessThan(3.2 + 8 / 6 + 3) // begun again at 3.2 s, once the time was up
  })
  it('does not wait where nothing is played', () => {
    expect(endOf(plucked(8, []), 90, 4, 4)).toBeCloseTo(3.17, 1)
  })
  it('is not put off for ever', () => {
    const end = endOf(plucked(20, every(0.3, 60)), 90, 4, 4)
    expect(end).toBeLessThan(2 * 2.67 + 0.1)
  })
})

describe('who plays', () => {
  it('is known by notes that begin, not by a string that rings', () => {
    const playing = new Playing(rate)
    playing.hear(plucked(2, [0.5]))
    expect(playing.idle).toBeGreaterThan(1.4)
    expect(playing.idle).toBeLessThan(1.51)
    expect(playing.paused).toBe(false)
  })
  it('is nobody before the first note', () => {
    const playing = new Playing(rate)
    playing.hear(new Float32Array(rate))
    expect(playing.idle).toBe(Infinity)
  })
  it('is said to have paused', () => {
    const playing = new Playing(rate)
    playing.hear(plucked(5, [0.5, 3]))
    expect(playing.paused).toBe(true)
  })
})
