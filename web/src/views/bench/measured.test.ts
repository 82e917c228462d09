import { describe, expect, it } from 'vitest'

import type { Pattern } from '../../api/client'
import { measured } from './measured'

const all: Pattern[] = [
  { kind: 'tapping', low: 1, middle: 4, tapAt: 7, order: 'inTurn' },
  { kind: 'bentTaps', finger: 3, taps: [7, 9, 10], between: true },
  { kind: 'twoHands', fretted: [0, 2], tapped: [7, 8], moves: [{ fretting: 0, tapping: 2 }] },
  { kind: 'twoStringShape', lower: [-1, 0, 2], higher: [0, 2], order: 'up' },
  {
    kind: 'chordShape',
    shape: [{ finger: 3, fret: 2 }],
    leaper: 3,
    leaps: [{ string: 0, fret: 3 }],
  },
]

describe('frets and distances', () => {
  it('are each other, to and fro', () => {
    for (const pattern of all) {
      const frets = measured(pattern, true, 5)
      expect(frets).toMatchObject({ atFrets: true })
      expect(measured(frets, true, 7)).toBe(frets)
      expect(JSON.parse(JSON.stringify(measured(frets, false, 5)))).toEqual(pattern)
    }
  })
  it('are said as the neck has them', () => {
    expect(measured(all[0]!, true, 5)).toMatchObject({ tapAt: 12 })
    expect(measured(all[3]!, true, 7)).toMatchObject({ lower: [6, 7, 9], higher: [7, 9] })
  })
  it('leave what is measured otherwise as it is', () => {
    const trill: Pattern = { kind: 'trill', fingers: [1, 3] }
    expect(measured(trill, true, 5)).toBe(trill)
  })
})
