import { describe, expect, it } from 'vitest'

import { meaning, redone, stepped, undone, type History } from './history'

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
})
