import { describe, expect, it } from 'vitest'

import { rowsShown } from './turning'

describe('the rows on the stand', () => {
  it('stay where they are as long as all have room', () => {
    expect(rowsShown(2, 3, 5, 4)).toEqual([0, 1])
  })

  it('are the one played and those after it, each in its place until it is over', () => {
    expect([0, 1, 2, 3].map((now) => rowsShown(3, 2, now, 2))).toEqual([
      [0, 1],
      [2, 1], // the first was played: the third has taken its place
      [2, 0], // and the next pass begins below
      [1, 0],
    ])
  })

  it('end with the last pass', () => {
    expect(rowsShown(3, 2, 5, 2)).toEqual([undefined, 2])
    expect(rowsShown(3, 2, 4, 2)).toEqual([1, 2])
  })

  it('always show the one played, whatever there is room for', () => {
    for (let rows = 1; rows < 8; rows++)
      for (let places = 1; places < 6; places++)
        for (let now = 0; now < rows * 3; now++) {
          const shown = rowsShown(rows, places, now, 3)
          expect(shown).toContain(now % rows)
          if (rows > places && now < rows * 3 - 1 && places > 1)
            expect(shown).toContain((now + 1) % rows)
          const before = now > 0 ? rowsShown(rows, places, now - 1, 3) : shown
          const changed = shown.filter((row, place) => row !== before[place])
          expect(changed.length).toBeLessThanOrEqual(1)
        }
  })
})
