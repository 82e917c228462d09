import { describe, expect, it } from 'vitest'

import { meaning, rebased, redone, stepped, undone, type History } from './history'

const start: History = { past: [], now: 'a', future: [] }
const three = stepped(stepped(start, 'b'), 'c')

describe('history', () => {
  it('goes all the way back and forward', () => {
    expect(undone(undone(three))).toEqual({ past: [], now: 'a', future: ['b', 'c'] })
    expect(redone(redone(undone(undone(three))))).toEqual(three)
  })
  it('stays where it is at both ends', () => {
    expect(undone(start)).toBe(start)
    expect(redone(three)).toBe(three)
  })
  it('gives up what was undone when something new is done', () => {
    expect(stepped(undone(three), 'd')).toEqual({ past: ['a', 'b'], now: 'd', future: [] })
  })
  it('makes no step of what has not changed', () => {
    expect(stepped(three, 'c')).toBe(three)
  })
  it('lets the oldest steps go', () => {
    let h = start
    for (let i = 0; i < 1000; i++) h = stepped(h, String(i))
    expect(h.past).toHaveLength(400)
    expect(h.now).toBe('999')
  })
  it('tells the same from another, however it is written', () => {
    expect(meaning({ a: 1, b: { c: [], d: 2 } })).toBe(meaning({ b: { d: 2 }, a: 1 }))
    expect(meaning({ a: [1, 2] })).not.toBe(meaning({ a: [2, 1] }))
    expect(meaning({ a: 0 })).not.toBe(meaning({}))
  })

  const draft: History = { past: [], now: '{"a":2}', future: [], base: '{"a":1}', revision: 4 }
  it('gives way to what is saved where it has no changes of its own', () => {
    const untouched = { ...draft, now: '{"a":1}' }
    expect(rebased(untouched, '{"a":7}', 5, true)).toMatchObject({ now: '{"a":7}', revision: 5 })
  })
  it('keeps its changes, and what they rest on, where another has saved meanwhile', () => {
    expect(rebased(draft, '{"a":7}', 5, true)).toBe(draft)
  })
  it('rests on what is saved where that is the same', () => {
    expect(rebased(draft, '{"a":2}', 5, true)).toMatchObject({ now: '{"a":2}', revision: 5 })
    expect(rebased(draft, '{"a":1}', 5, true)).toMatchObject({ now: '{"a":2}', revision: 5 })
  })
})
