import { describe, expect, it } from 'vitest'

import { momentOf, scheduleOf } from './schedule'
import { encodeWav } from './wav'

describe('schedule', () => {
  const s = scheduleOf(120, 5.5, 2, 10)

  it('counts four in and clicks each beat to the end', () => {
    expect(s.first).toBeCloseTo(12)
    expect(s.end).toBeCloseTo(12 + 11 * 0.5)
    expect(s.clicks).toHaveLength(4 + 11)
    s.clicks.forEach((c, i) => expect(c.at).toBeCloseTo(10 + i * 0.5))
    expect(s.clicks.filter((c) => c.strong).map((c) => c.at)).toEqual([10, 12])
  })
  it('only counts in where the drill is free', () => {
    const free = scheduleOf(120, 5.5, 2, 10, true)
    expect(free.clicks.map((c) => c.at)).toEqual([10, 10.5, 11, 11.5])
    expect(free.end).toBeCloseTo(s.end)
  })
  it('tells the count, the pass and the note due', () => {
    const beats = [0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5, 4, 4.5, 5]
    expect(momentOf(s, beats, 5.5, 10.1)).toEqual({ countIn: 4, beat: 0 })
    expect(momentOf(s, beats, 5.5, 11.9)).toEqual({ countIn: 1, beat: 3 })
    expect(momentOf(s, beats, 5.5, 12.01)).toEqual({ pass: 0, note: 0, beat: 0 })
    expect(momentOf(s, beats, 5.5, 12.76)).toEqual({ pass: 0, note: 3, beat: 1 })
    expect(momentOf(s, beats, 5.5, 12 + 2.75 + 0.26)).toEqual({ pass: 1, note: 1, beat: 0 })
  })
})

describe('WAV', () => {
  it('is PCM of 24 bit, as the RIFF description says', async () => {
    const blob = encodeWav([new Float32Array([0, 1, -1]), new Float32Array([0.5, 2])], 48000)
    const view = new DataView(await blob.arrayBuffer())
    const text = (at: number) => String.fromCharCode(...new Uint8Array(view.buffer, at, 4))
    const sample = (i: number) =>
      view.getUint16(44 + 3 * i, true) | (view.getInt8(46 + 3 * i) << 16)
    expect([text(0), text(8), text(12), text(36)]).toEqual(['RIFF', 'WAVE', 'fmt ', 'data'])
    expect(view.getUint32(4, true)).toBe(view.byteLength - 8)
    expect(view.getUint16(22, true)).toBe(1)
    expect(view.getUint32(24, true)).toBe(48000)
    expect(view.getUint16(34, true)).toBe(24)
    expect(view.getUint32(40, true)).toBe(15)
    expect([0, 1, 2, 3, 4].map(sample)).toEqual([0, 0x7fffff, -0x7fffff, 0x400000, 0x7fffff])
  })
})
