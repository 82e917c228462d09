import { describe, expect, it } from 'vitest'

import type { Bench, Drill, Family, Pattern } from '../../api/client'
import { asFamily, copyOf, familyOf, freshDrill } from './families'

function drill(name: string, pattern: Pattern, parts: Partial<Drill> = {}): Drill {
  return {
    name,
    pattern,
    path: {
      position: 5,
      strings: [3],
      spread: 'neighbours',
      back: 'none',
      stay: { count: 1, unit: 'times' },
      shift: { by: 0, each: 'round', count: 0, home: false, slide: false },
      together: false,
    },
    attacks: { rule: 'slurred' },
    rhythm: { notesPerBeat: 2, beatsPerBar: 4, passes: 2, close: 0, free: false },
    strokes: { rule: 'alternate', fromUp: false },
    fingering: { stretch: 'middle', tapFinger: 2, keepDown: false },
    mirror: false,
    reverse: false,
    ...parts,
  }
}
const run = (topTapped: boolean): Pattern => ({
  kind: 'scaleRun',
  perString: [3],
  order: 'up',
  sequence: { length: 0, advance: 0 },
  topTapped,
})
const tapping: Pattern = { kind: 'tapping', low: 1, middle: 4, tapAt: 7, order: 'inTurn' }
const family = (id: string, d: Drill): Family => ({
  id,
  group: '',
  name: d.name,
  about: '',
  drill: d,
})

const families = [
  family('trill', drill('Trill', { kind: 'trill', fingers: [1, 3] })),
  family('scaleRun', drill('Scale run', run(false))),
  family('tappedRun', drill('Tapped run', run(true), { attacks: { rule: 'noPluck' } })),
  family('tapping', drill('Tapping', tapping)),
  family(
    'heldBend',
    drill('Held bend', tapping, {
      fingering: { stretch: 'middle', tapFinger: 2, keepDown: false, bendHeld: 2 },
    }),
  ),
]

describe('families', () => {
  it('tells which family a drill belongs to, though two share a pattern', () => {
    for (const f of families) expect(familyOf(f.drill, families)).toBe(f.id)
    expect(familyOf(drill('x', { kind: 'free', notes: [] }), families)).toBe('')
  })
  it('keeps a name that was given, and no other', () => {
    const [trill, scale] = families as [Family, Family]
    expect(asFamily({ ...trill.drill, name: 'For Ann' }, scale, families).name).toBe('For Ann')
    expect(asFamily(trill.drill, scale, families).name).toBe('Scale run')
    expect(asFamily({ ...trill.drill, name: 'New drill' }, scale, families).name).toBe('Scale run')
  })
  it('makes copies that share nothing', () => {
    const [trill] = families as [Family]
    const copy = copyOf(trill.drill)
    copy.path.strings.push(1)
    expect(trill.drill.path.strings).toEqual([3])
  })
  it('starts from the first family with the usual ladder', () => {
    const usual = { startBpm: 60, stepBpm: 4, targetBpm: 120 } as Bench['usual']
    const bench = { families, usual } as Bench
    expect(freshDrill(bench).drill.name).toBe('New drill')
    expect(freshDrill(bench).ladder).toEqual(usual)
  })
})
