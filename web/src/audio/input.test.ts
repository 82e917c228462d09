import { describe, expect, it } from 'vitest'

import { floorDb, InputLevel, looksBack, barSeconds } from './input'

const rate = 48000

/** A tone of an amplitude, cut off at full scale as an input does. */
function tone(seconds: number, amplitude: number): Float32Array {
  const x = new Float32Array(seconds * rate)
  for (let i = 0; i < x.length; i++)
    x[i] = Math.max(-1, Math.min(1, amplitude * Math.sin((2 * Math.PI * 220 * i) / rate)))
  return x
}

function wordOf(...parts: Float32Array[]) {
  const level = new InputLevel(rate)
  for (const x of parts)
    for (let at = 0; at < x.length; at += 1000) level.hear(x.subarray(at, at + 1000))
  return level.word
}

describe('the level of the input', () => {
  it('says nothing before anything has come', () => {
    expect(new InputLevel(rate).word).toBeUndefined()
  })
  it.each([
    ['silent', 0],
    ['silent', 0.0015], // −56 dB: a room
    ['soft', 0.003],
    ['soft', 0.016], // −36 dB
    ['good', 0.02],
    ['good', 0.9],
    ['clipped', 1.3],
  ])('calls it %s at an amplitude of %d', (word, amplitude) => {
    expect(wordOf(tone(1, amplitude))).toBe(word)
  })
  it('takes single samples at full scale for chance', () => {
    const x = tone(1, 0.3)
    for (let i = 0; i < x.length; i += 100) x[i] = 1
    expect(wordOf(x)).toBe('good')
  })
  it('forgets what is long past', () => {
    expect(wordOf(tone(1, 1.3), tone(looksBack + 0.1, 0.3))).toBe('good')
    expect(wordOf(tone(1, 0.3), tone(looksBack + 0.1, 0))).toBe('silent')
  })
  it('goes by the loudest of what it looks back on, not by the last', () => {
    expect(wordOf(tone(1, 0.3), tone(1, 0))).toBe('good')
  })
  it('keeps the peak of each bar, and which were cut off', () => {
    const level = new InputLevel(rate)
    level.hear(tone(0.1, 0.5))
    level.hear(tone(0.05, 1.3))
    level.hear(tone(0.05, 0))
    expect(level.bars.map((db) => Math.round(db))).toEqual([-6, -6, 0, floorDb])
    expect([0, 1, 2, 3].map((bar) => level.isClipped(bar))).toEqual([false, false, true, false])
    level.hear(tone(10, 0.1))
    expect(level.bars).toHaveLength(looksBack / barSeconds)
  })
})
