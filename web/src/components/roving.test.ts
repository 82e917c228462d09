import { describe, expect, it } from 'vitest'

import { stepTo, useRoving } from './roving'

describe('one tab stop for many', () => {
  it('goes from one to the next and stays at the ends', () => {
    expect(['ArrowRight', 'ArrowDown', 'ArrowLeft', 'ArrowUp'].map((k) => stepTo(k, 3, 9))).toEqual(
      [4, 4, 2, 2],
    )
    expect([stepTo('ArrowLeft', 0, 9), stepTo('ArrowRight', 8, 9)]).toEqual([0, 8])
    expect([stepTo('Home', 5, 9), stepTo('End', 5, 9), stepTo('x', 5, 9)]).toEqual([
      0,
      8,
      undefined,
    ])
  })
  it('stops at the first until another is focused', () => {
    const { tabindexOf, onFocus } = useRoving(() => 'a')
    expect([tabindexOf('a'), tabindexOf('b')]).toEqual([0, -1])
    onFocus({ target: { dataset: { roving: 'b' } } } as unknown as FocusEvent)
    onFocus({ target: { dataset: {} } } as unknown as FocusEvent)
    expect([tabindexOf('a'), tabindexOf('b')]).toEqual([-1, 0])
  })
})
