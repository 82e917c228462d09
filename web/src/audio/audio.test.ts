import { describe, expect, it } from 'vitest'

import { samplesOf } from './clicksound'
import { isHeard, plainPulse, weightOf } from './pulse'
import { momentOf, plainClick, scheduleOf } from './schedule'
import { encodeWav } from './wav'

describe('schedule', () => {
  const asked = { bpm: 120, beatsPerPass: 5.5, passes: 2, beatsPerBar: 4 }
  const s = scheduleOf(asked, 10)
  const strong = (of: typeof s) => of.clicks.filter((c) => c.weight === 'strong').map((c) => c.at)

  it('counts a bar in and clicks each beat to the end, the first of each bar stressed', () => {
    expect(s.first).toBeCloseTo(12)
    expect(s.end).toBeCloseTo(12 + 11 * 0.5)
    expect(s.clicks).toHaveLength(4 + 11)
    s.clicks.forEach((c, i) => expect(c.at).toBeCloseTo(10 + i * 0.5))
    expect(strong(s)).toEqual([10, 12, 14, 16])
  })
  it('counts in by the metre, and two bars where wanted', () => {
    const waltz = scheduleOf({ ...asked, beatsPerBar: 3 }, 0, { ...plainClick, countIn: 2 })
    expect(waltz.first).toBeCloseTo(3)
    expect(strong(waltz).slice(0, 3)).toEqual([0, 1.5, 3])
    const beats = [0]
    expect(momentOf(waltz, beats, 5.5, 0.1)).toEqual({ countIn: 6, beat: 0 })
    expect(momentOf(waltz, beats, 5.5, 1.6)).toEqual({ countIn: 3, beat: 0 })
    expect(momentOf(waltz, beats, 5.5, 2.9)).toEqual({ countIn: 1, beat: 2 })
  })
  it('divides the beat, and leaves bars out to try the inner clock', () => {
    const divided = scheduleOf(asked, 10, { ...plainClick, clicks: 3 })
    expect(divided.clicks).toHaveLength(4 + 33)
    expect(divided.clicks.filter((c) => c.weight === 'between')).toHaveLength(22)
    const gaps = scheduleOf(asked, 10, { ...plainClick, off: 1 })
    expect(gaps.clicks.slice(4).map((c) => c.at - gaps.first)).toEqual([0, 0.5, 1, 1.5, 4, 4.5, 5])
    expect(momentOf(gaps, [0], 5.5, 12.1).beat).toBe(0)
    expect(momentOf(gaps, [0], 5.5, 14.1).beat).toBeUndefined()
  })
  it('gets faster from pass to pass where it is to rise', () => {
    const rising = scheduleOf({ ...asked, beatsPerPass: 4, passes: 3, rise: 30 }, 0) // 120, 150, 180
    expect(rising.first).toBeCloseTo(2)
    expect(rising.end - rising.first).toBeCloseTo(4 * (0.5 + 0.4 + 60 / 180))
    const at = rising.clicks.slice(4).map((c) => c.at - rising.first)
    expect(at.slice(3, 6).map((t) => Number(t.toFixed(6)))).toEqual([1.5, 2, 2.4])
    const beats = [0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5]
    expect(momentOf(rising, beats, 4, rising.first + 2.65)).toMatchObject({ pass: 1, note: 3 })
    expect(momentOf(rising, beats, 4, rising.end - 0.01)).toMatchObject({ pass: 2, note: 7 })
  })
  it('only counts in where the drill is free', () => {
    const free = scheduleOf({ ...asked, free: true }, 10)
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

describe('a pulse', () => {
  it('stresses what is to be stressed, and is silent for whole bars', () => {
    const p = { ...plainPulse, beatsPerBar: 5, clicks: 2, accents: [0, 3], on: 1, off: 2 }
    const bar = Array.from({ length: 10 }, (_, i) => weightOf(p, i))
    expect(bar.map((w) => w?.[0])).toEqual(['s', 'b', 'b', 'b', 'b', 'b', 's', 'b', 'b', 'b'])
    expect(bar.filter((w) => w === 'between')).toHaveLength(5)
    expect([0, 1, 2, 3, 4].map((b) => isHeard(p, b))).toEqual([true, false, false, true, false])
    expect(weightOf(p, 10)).toBeUndefined()
    expect(weightOf(p, 30)).toBe('strong')
  })

  it('clicks too shortly for a note', () => {
    for (const sound of ['usual', 'high', 'low'] as const) {
      const x = samplesOf(sound, 'strong', 48000)
      expect(x.length).toBeLessThanOrEqual(0.03 * 48000)
      const power = (from: number, to: number) =>
        x.slice(from, to).reduce((sum, v) => sum + v * v, 0)
      expect(power(720, 1440)).toBeLessThan(0.01 * power(0, 720))
    }
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
