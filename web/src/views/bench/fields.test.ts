import { describe, expect, it } from 'vitest'

import type { PatternOf } from '../../api/client'
import { fields, type Field } from './fields'

function text(kind: keyof typeof fields, part: string): Field & { as: 'text' } {
  const field = fields[kind]?.find((f) => f.part === part)
  if (field?.as !== 'text') throw new Error(`${kind} has no text field ${part}`)
  return field
}

describe('fields of the patterns', () => {
  it('counts the strings of a leap from 1 on screen and from 0 in the drill', () => {
    const leaps: PatternOf<'chordShape'>['leaps'] = [
      { string: 1, fret: 3 },
      { string: 2, fret: 0 },
    ]
    const field = text('chordShape', 'leaps')
    expect(field.write(leaps as never)).toBe('2:3 3:0')
    expect(field.read('2:3 3:0')).toEqual(leaps)
  })
  it('reads moves of both hands with their signs', () => {
    expect(text('twoHands', 'moves').read('0:0 -1:+2')).toEqual([
      { fretting: 0, tapping: 0 },
      { fretting: -1, tapping: 2 },
    ])
  })
  it('knows the open string in a cell along one string', () => {
    const field = text('oneString', 'steps')
    expect(field.read('o 0 2')).toEqual([-1, 0, 2])
    expect(field.write([-1, 0, 2] as never)).toBe('o 0 2')
  })
  it('reads back whatever it writes', () => {
    for (const [kind, own] of Object.entries(fields))
      for (const f of own) {
        if (f.as !== 'text') continue
        const once = f.read('1 2 3:4 2:1')
        expect(f.read(f.write(once as never)), `${kind}.${f.part}`).toEqual(once)
      }
  })
})
