import { describe, expect, it } from 'vitest'

import { readRungs, writeRungs } from './rungs'

describe('rungs as they are typed', () => {
  it('are tempi with the notes per beat of the drill', () => {
    expect(readRungs('60, 64  70.5', 2)).toEqual([
      { bpm: 60, notesPerBeat: 2 },
      { bpm: 64, notesPerBeat: 2 },
      { bpm: 70.5, notesPerBeat: 2 },
    ])
  })
  it('may each have their own', () => {
    const rungs = [
      { bpm: 60, notesPerBeat: 3 },
      { bpm: 60, notesPerBeat: 6 },
    ]
    expect(readRungs('60x3 60×6', 2)).toEqual(rungs)
    expect(readRungs(writeRungs(rungs), 1)).toEqual(rungs)
  })
  it('are not what is no tempo', () => {
    for (const text of ['', 'fast', '60x', 'x3', '60 - 70', '60x3x2', '-60'])
      expect(readRungs(text, 2), text).toBeUndefined()
  })
})
