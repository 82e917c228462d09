import { expect, it } from 'vitest'

import type { ReachStep } from '../../api/client'
import { answered, begun } from './reach'

const steps: ReachStep[] = [
  {
    pair: '12',
    from: 1,
    to: 2,
    frets: 2,
    places: [
      { fret: 12, mm: 35.4 },
      { fret: 11, mm: 37.5 },
      { fret: 10, mm: 39.8 },
    ],
  },
  { pair: '14', from: 1, to: 4, frets: 4, places: [{ fret: 12, mm: 66.8 }] },
]

it('goes down the neck for as long as it is comfortable', () => {
  let at = answered(steps, begun(), true)
  at = answered(steps, at, true)
  expect(at).toEqual({ step: 0, place: 2, hand: {} })
  expect(answered(steps, at, false)).toEqual({ step: 1, place: 0, hand: { '12': 37 } })
  expect(answered(steps, at, true)).toEqual({ step: 1, place: 0, hand: { '12': 39 } })
})

it('asks no more of a hand than it has', () => {
  const at = { step: 1, place: 0, hand: { '12': 37 } }
  expect(answered(steps, at, false).hand['14']).toBe(50)
  const done = answered(steps, at, true)
  expect(done.hand).toEqual({ '12': 37, '14': 66 })
  expect(answered(steps, done, true)).toBe(done)
})
