import { describe, expect, it } from 'vitest'

import type { GlanceDrill, GlanceStudent, Need } from '../../api/client'
import { counted, filtered, kindOf, lastDays, ordered } from './glance'

function student(
  name: string,
  why: Need['why'] | undefined,
  drill: Partial<GlanceDrill> & { ofGate?: number; late?: number } = {},
): GlanceStudent {
  const { ofGate, late, ...more } = drill
  return {
    person: { id: name, name, role: 'student', demo: true },
    groups: [],
    days: [],
    needs: why ? [{ why, text: '', drill: 0 }] : [],
    drills: [
      {
        assignmentId: name,
        name: 'Pairs',
        rung: { bpm: 60, notesPerBeat: 2 },
        waits: false,
        state: { ofGate, weakest: late === undefined ? undefined : { lateMs: late } },
        ...more,
      } as GlanceDrill,
    ],
  }
}
const names = (s: GlanceStudent[]) => s.map((x) => x.person.name).join(' ')

describe('the students at a glance', () => {
  const all = [
    student('Zoe', 'pain', { ofGate: 80, late: 4 }),
    student('Ann', 'stuck', { ofGate: 120, late: 20 }),
    student('Ben', undefined, { ofGate: 140, name: 'Trill' }),
  ]
  it('are as they came by need, and otherwise by what is asked', () => {
    expect(names(ordered(all, 'need'))).toBe('Zoe Ann Ben')
    expect(names(ordered(all, 'name'))).toBe('Ann Ben Zoe')
    expect(names(ordered(all, 'gate'))).toBe('Ben Ann Zoe')
    expect(names(ordered(all, 'pair'))).toBe('Ann Zoe Ben')
    all[1]!.days = ['2026-03-02T00:00:00Z']
    expect(names(ordered(all, 'days'))).toBe('Ben Zoe Ann')
  })
  it('are found by name and drill together, and by what they need', () => {
    expect(names(filtered(all, 'be TRI', undefined))).toBe('Ben')
    expect(names(filtered(all, 'pairs', 'stuck'))).toBe('Ann')
    expect(filtered(all, 'nobody', undefined)).toEqual([])
    expect(kindOf(all[2]!)).toBe('well')
    expect(counted(all)).toEqual([
      { kind: 'pain', n: 1 },
      { kind: 'stuck', n: 1 },
      { kind: 'well', n: 1 },
    ])
  })
  it('played on days up to today', () => {
    const s = student('Ann', undefined)
    s.days = ['2026-03-01T00:00:00Z', '2026-03-14T00:00:00Z', '2026-02-01T00:00:00Z']
    const days = lastDays(s, '2026-03-14T00:00:00Z')
    expect(days).toHaveLength(14)
    expect([days[0], days[1], days[13]]).toEqual([true, false, true])
  })
})
