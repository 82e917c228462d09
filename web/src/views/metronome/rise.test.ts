import { expect, it } from 'vitest'

import { plainPulse } from '../../audio/pulse'
import { risen, tappedBpm } from './rise'

it('rises by the same step a bar, and stays at the top', () => {
  const p = { ...plainPulse, bpm: 60, clicks: 2 }
  const rise = { on: true, to: 100, bars: 4 }
  expect([0, 7, 8, 16, 32, 400].map((c) => risen(p, rise, c))).toEqual([60, 60, 70, 80, 100, 100])
  expect(risen(p, { ...rise, on: false }, 32)).toBe(60)
})

it('hears a tempo in taps, and begins anew after a pause', () => {
  expect(tappedBpm([0])).toBeUndefined()
  expect(tappedBpm([0, 0.5, 1.0, 1.5])).toBeCloseTo(120)
  expect(tappedBpm([0, 0.5, 9, 10, 11])).toBeCloseTo(60)
  expect(tappedBpm([0, 0.5, 9])).toBeUndefined()
})
