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
    expect(field.read('2:3 3:0').value).toEqual(leaps)
  })
  it('reads moves of both hands with their signs', () => {
    expect(text('twoHands', 'moves').read('0:0 -1:+2').value).toEqual([
      { fretting: 0, tapping: 0 },
      { fretting: -1, tapping: 2 },
    ])
  })
  it('knows the open string in a cell along one string', () => {
    const field = text('oneString', 'steps')
    expect(field.read('o 0 2').value).toEqual([-1, 0, 2])
    expect(field.write([-1, 0, 2] as never)).toBe('o 0 2')
  })
  it('takes one extra note, or none', () => {
    const field = text('skipArpeggio', 'extraAt')
    expect(field.read('5:8').value).toEqual({ string: 5, fret: 8 })
    expect(field.read('').value).toBeUndefined()
    expect(field.write(undefined as never)).toBe('')
  })
  it('reads back whatever it writes', () => {
    for (const [kind, own] of Object.entries(fields))
      for (const f of own) {
        if (f.as !== 'text') continue
        const once = f.read(f.part.match(/moves|shape|leaps|extraAt/) ? '3:4 2:1' : '1 2')
        expect(once.rest, `${kind}.${f.part}`).toBe('')
        expect(f.read(f.write(once.value as never)).value, `${kind}.${f.part}`).toEqual(once.value)
        expect(f.read('1:2 nonsense').rest, `${kind}.${f.part}`).toContain('nonsense')
      }
  })
})
