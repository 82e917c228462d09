import { describe, expect, it } from 'vitest'

import { actionOf, type Actions } from './shortcuts'

const actions: Actions = {
  plain: { h: () => 'hear', ',': () => 'thicker' },
  save: () => 'save',
  undo: () => {},
  redo: () => {},
}
const key = (key: string, parts: object = {}) => ({
  key,
  ctrlKey: false,
  metaKey: false,
  shiftKey: false,
  altKey: false,
  ...parts,
})
const ctrl = { ctrlKey: true }

describe('keys of the bench', () => {
  it('hears by one key', () => {
    expect(actionOf(key('h'), 'nothing', actions)).toBe(actions.plain['h'])
    expect(actionOf(key('H'), 'number', actions)).toBe(actions.plain['h'])
    expect(actionOf(key('h', { altKey: true }), 'nothing', actions)).toBeUndefined()
  })
  it('leaves letters, commas and undo to whoever types text', () => {
    expect(actionOf(key('h'), 'text', actions)).toBeUndefined()
    expect(actionOf(key(','), 'number', actions)).toBeUndefined()
    expect(actionOf(key(','), 'nothing', actions)).toBe(actions.plain[','])
    expect(actionOf(key('z', ctrl), 'text', actions)).toBeUndefined()
  })
  it('saves from everywhere', () => {
    for (const typing of ['text', 'number', 'nothing'] as const)
      expect(actionOf(key('s', ctrl), typing, actions)).toBe(actions.save)
    expect(actionOf(key('s', { metaKey: true }), 'text', actions)).toBe(actions.save)
  })
  it('undoes, and redoes by either of the usual keys', () => {
    expect(actionOf(key('z', ctrl), 'nothing', actions)).toBe(actions.undo)
    expect(actionOf(key('Z', { ...ctrl, shiftKey: true }), 'nothing', actions)).toBe(actions.redo)
    expect(actionOf(key('y', ctrl), 'number', actions)).toBe(actions.redo)
    expect(actionOf(key('x', ctrl), 'nothing', actions)).toBeUndefined()
  })
})
