import { describe, expect, it } from 'vitest'

import { rowsShown } from './turning'

describe('the rows on the stand', () => {
  it('stay where they are as long as all have room', () => {
    expect(rowsShown(2, 3, 5, 0, 4)).toEqual([4, 5])
    expect(rowsShown(2, 2, 4, 0.9, 4)).toEqual([4, 5])
  })

  it('are the one played and those after it, each in its place until it is over', () => {
    expect([0, 1, 2, 3].map((now) => rowsShown(3, 2, now, 0.5, 2))).toEqual([
      [0, 1],
      [2, 1], // the first was played: the third has taken its place
      [2, 3], // and the next pass begins below
      [4, 3],
    ])
  })

  it('leave what was just played in sight until half of the next is over', () => {
    expect(rowsShown(3, 2, 1, 0.4, 2)).toEqual([0, 1])
    expect(rowsShown(3, 2, 2, 0, 2)).toEqual([2, 1])
    expect(rowsShown(5, 3, 3, 0.2, 2)).toEqual([3, 4, 2])
    expect(rowsShown(5, 1, 3, 0.2, 2)).toEqual([3])
  })

  it('end with the last pass', () => {
    expect(rowsShown(3, 2, 5, 0.6, 2)).toEqual([undefined, 5])
  })

  it('always show the one played, and never move but one at a time', () => {
    for (let rows = 1; rows < 8; rows++)
      for (let places = 1; places < 6; places++) {
        let before: (number | undefined)[] | undefined
        for (let now = 0; now < rows * 3; now++)
          for (const share of [0, 0.6]) {
            const shown = rowsShown(rows, places, now, share, 3)
            expect(shown).toContain(now)
            if (rows > places && share > 0.5 && places > 1 && now < rows * 3 - 1)
              expect(shown).toContain(now + 1)
            if (before && rows > places)
              expect(shown.filter((q, i) => q !== before![i]).length).toBeLessThanOrEqual(1)
            before = shown
          }
      }
  })
})
