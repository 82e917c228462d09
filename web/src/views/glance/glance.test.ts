import { describe, expect, it } from 'vitest'

import type { GlanceStudent, Need } from '../../api/client'
import { joined, kindOf, lastDays } from './glance'

const student = (name: string, why?: Need['why'], days: string[] = []): GlanceStudent => ({
  person: { id: name, name, role: 'student', demo: true },
  days,
  due: [],
  drills: [],
  needs: why ? [{ why, text: '', drill: 0 }] : [],
})

describe('the students at a glance', () => {
  it('are filed under their first reason', () => {
    expect(kindOf(student('Zoe', 'pain'))).toBe('pain')
    expect(kindOf(student('Ben'))).toBe('well')
  })
  it('are there once though they have moved to the next page meanwhile', () => {
    const names = joined([student('Zoe'), student('Ann')], [student('Ann'), student('Ben')]).map(
      (s) => s.person.name,
    )
    expect(names).toEqual(['Zoe', 'Ann', 'Ben'])
  })
  it('have days, today last', () => {
    const days = ['2026-03-02T00:00:00Z', '2026-02-27T00:00:00Z', '2026-01-01T00:00:00Z']
    expect(lastDays(student('Zoe', undefined, days), '2026-03-02T00:00:00Z', 4)).toEqual([
      true,
      false,
      false,
      true,
    ])
  })
})
