import { expect, it } from 'vitest'

import type { Neck } from '../../api/client'
import { NeckFrame } from './frame'

const neck = (leftHanded: boolean): Neck => ({
  frets: 22,
  topFret: 22,
  capo: 0,
  leftHanded,
  scaleMm: 648,
  reachMm: 0,
  // Each fret divides what is left by the twelfth root of two (common practice).
  fretMm: Array.from({ length: 23 }, (_, n) => 648 * (1 - 2 ** (-n / 12))),
})

it('finds the place that lies at a point, mirrored for the left-handed too', () => {
  for (const leftHanded of [false, true]) {
    const frame = new NeckFrame(neck(leftHanded), 6, 3, 12, 700, 31)
    for (const string of [1, 4, 6])
      for (const fret of [4, 7, 12])
        expect(frame.at(frame.finger(fret), frame.y(string) + 10)).toEqual({ string, fret })
    expect(frame.wire(12) > frame.wire(3)).toBe(!leftHanded)
    expect(frame.at(frame.finger(5), -500).string).toBe(1)
    expect(frame.at(frame.finger(5), 5000).string).toBe(6)
    expect(frame.span(3, 5)).toEqual({
      x: Math.min(frame.wire(3), frame.wire(5)),
      width: Math.abs(frame.wire(5) - frame.wire(3)),
    })
  }
})
