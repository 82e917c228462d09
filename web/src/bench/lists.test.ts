import { describe, expect, it } from 'vitest'

import { readList, readLists, readPairs, writeList, writeLists, writePairs } from './lists'

describe('lists as they are typed', () => {
  it('reads numbers however they are parted', () => {
    for (const text of ['1 2 4', '1-2-4', '1, 2,4', ' 1  2-4 '])
      expect(readList(text)).toEqual([1, 2, 4])
  })
  it('knows the open string', () => {
    expect(readList('o 0 1')).toEqual([-1, 0, 1])
    expect(readList('o-0-1')).toEqual([-1, 0, 1])
    expect(writeList([-1, 0, 1])).toBe('o 0 1')
  })
  it('passes over what is no number yet', () => {
    expect(readList('1 2 x')).toEqual([1, 2])
    expect(readList('')).toEqual([])
  })
  it('reads groups and pairs back as they are written', () => {
    expect(
      readLists(
        writeLists([
          [4, 3],
          [3, 2],
          [2, 1],
        ]),
      ),
    ).toEqual([
      [4, 3],
      [3, 2],
      [2, 1],
    ])
    expect(
      readPairs(
        writePairs([
          [0, -2],
          [3, 1],
        ]),
      ),
    ).toEqual([
      [0, -2],
      [3, 1],
    ])
    expect(readPairs('0:2 1:')).toEqual([[0, 2]])
  })
})
