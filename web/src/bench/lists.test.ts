import { describe, expect, it } from 'vitest'

import * as lists from './lists'

const { readCombinations, readFrets, readList, readLists, readPairs } = lists
const { writeCombinations, writeFrets, writeList, writeLists, writePairs } = lists

describe('lists as they are typed', () => {
  it('reads numbers however they are parted', () => {
    for (const text of ['1 2 4', '1-2-4', '1, 2,4', ' 1  2-4 '])
      expect(readList(text)).toEqual({ value: [1, 2, 4], rest: '' })
  })
  it('knows the open string', () => {
    expect(readList('o 0 1').value).toEqual([-1, 0, 1])
    expect(readList('o-0-1').value).toEqual([-1, 0, 1])
    expect(writeList([-1, 0, 1])).toBe('o 0 1')
  })
  it('reads frets below where they are counted from', () => {
    expect(readFrets('7-8-10').value).toEqual([7, 8, 10])
    expect(readFrets('-1 0 2').value).toEqual([-1, 0, 2])
    expect(readFrets('0, −2').value).toEqual([0, -2])
    expect(readFrets(writeFrets([-1, 0, 2])).value).toEqual([-1, 0, 2])
  })
  it('says where it stopped reading, and keeps what it read', () => {
    expect(readList('1 2 x 3')).toEqual({ value: [1, 2], rest: 'x 3' })
    expect(readList('')).toEqual({ value: [], rest: '' })
    expect(readPairs('0:2 1:')).toEqual({ value: [[0, 2]], rest: '1:' })
    expect(readLists('4 3, 3 z, 2 1')).toEqual({
      value: [[4, 3], [3]],
      rest: 'z, 2 1',
    })
    expect(readCombinations('6:6p5 7p5')).toEqual({ value: [[6]], rest: ':6p5 7p5' })
  })
  it('reads combinations in the order played, and again and again', () => {
    const all = [
      [2, 1],
      [3, 1],
      [2, 1],
    ]
    expect(readCombinations('21 31 21').value).toEqual(all)
    expect(readCombinations('2-1, 3-1, 2-1').value).toEqual(all)
    expect(readCombinations(writeCombinations(all)).value).toEqual(all)
  })
  it('reads groups and pairs back as they are written', () => {
    const groups = [
      [4, 3],
      [3, 2],
      [2, 1],
    ]
    expect(readLists(writeLists(groups)).value).toEqual(groups)
    const pairs: [number, number][] = [
      [0, -2],
      [3, 1],
    ]
    expect(readPairs(writePairs(pairs)).value).toEqual(pairs)
  })
})
