import { describe, expect, it } from 'vitest'

import type { Plan, PlanLine } from '../../api/client'
import { added, changed, copied, daysOn, lasts, lineAt, moved, released, removed } from './edits'

const line = (name: string, seconds = 150): PlanLine => ({
  kind: 'drill',
  drill: name,
  name,
  seconds,
})
const rest: PlanLine = { kind: 'rest', seconds: 30 }

/** Two weeks of which the first Monday and Tuesday have something. */
function plan(): Plan {
  const day = (week: number, n: number, lines: PlanLine[] = []) => ({
    date: new Date(Date.UTC(2026, 2, 2 + 7 * week + n)).toISOString(),
    lines,
  })
  const weeks = [0, 1].map((w) => ({
    begins: day(w, 0).date,
    positions: [9],
    theme: '',
    days: Array.from({ length: 7 }, (_, n) => day(w, n)),
  }))
  weeks[0]!.days[0]!.lines = [line('a'), rest, line('b'), rest, line('c')]
  weeks[0]!.days[1]!.lines = [line('d')]
  return { weeks, lower: [], said: [], goals: [] }
}
const names = (p: Plan, week: number, day: number) =>
  p.weeks[week]!.days[day]!.lines.map((l) => l.name ?? 'rest').join(' ')

describe('a plan that is changed by hand', () => {
  it('leaves what it was made from as it is', () => {
    const before = plan()
    removed(before, { week: 0, day: 0, line: 0 })
    moved(before, { week: 0, day: 0, line: 0 }, { week: 0, day: 1 })
    expect(before).toEqual(plan())
  })
  it('marks the days it touches, and those alone', () => {
    const p = moved(plan(), { week: 0, day: 0, line: 2 }, { week: 0, day: 1 })
    expect(p.weeks[0]!.days.map((d) => !!d.byHand)).toEqual([
      true,
      true,
      false,
      false,
      false,
      false,
      false,
    ])
    expect(names(p, 0, 0)).toBe('a rest c')
    expect(names(p, 0, 1)).toBe('d b')
  })
  it('leaves no rest first, last or beside another', () => {
    expect(names(removed(plan(), { week: 0, day: 0, line: 0 }), 0, 0)).toBe('b rest c')
    expect(names(removed(plan(), { week: 0, day: 0, line: 4 }), 0, 0)).toBe('a rest b')
    expect(names(removed(plan(), { week: 0, day: 0, line: 2 }), 0, 0)).toBe('a rest c')
  })
  it('puts lines in another order within a day', () => {
    expect(
      names(moved(plan(), { week: 0, day: 0, line: 4 }, { week: 0, day: 0, line: 0 }), 0, 0),
    ).toBe('c a rest b rest')
  })
  it('stays as it is where there is nothing to move, or nowhere to', () => {
    const p = plan()
    expect(moved(p, { week: 0, day: 3, line: 0 }, { week: 0, day: 1 })).toBe(p)
    expect(moved(p, { week: 0, day: 0, line: 0 }, { week: 5, day: 1 })).toBe(p)
  })
  it('takes a line on a day of rest', () => {
    const p = plan()
    p.weeks[0]!.days[6]!.reason = 'A day of rest.'
    const after = added(p, 0, 6, line('x'))
    expect(names(after, 0, 6)).toBe('x')
    expect(after.weeks[0]!.days[6]!.reason).toBeUndefined()
  })
  it('copies a week onto another, whose dates stay', () => {
    const p = copied(plan(), 0, 1)
    expect(names(p, 1, 0)).toBe('a rest b rest c')
    expect(p.weeks[1]!.days[0]!.date).toBe('2026-03-09T00:00:00.000Z')
    expect(p.weeks[1]!.days.every((d) => d.byHand)).toBe(true)
    expect(copied(plan(), 0, 9)).toEqual(plan())
  })
  it('changes a line and gives a day back', () => {
    const p = changed(plan(), { week: 0, day: 1, line: 0 }, { seconds: 300, position: 3 })
    expect(lineAt(p, { week: 0, day: 1, line: 0 })).toMatchObject({
      name: 'd',
      seconds: 300,
      position: 3,
    })
    expect(lasts(p.weeks[0]!.days[1]!)).toBe(300)
    expect(released(p, 0, 1).weeks[0]!.days[1]!.byHand).toBeUndefined()
  })
  it('knows the days before and after over the ends of weeks', () => {
    const p = plan()
    expect(daysOn(p, { week: 0, day: 6, line: 0 }, 1)).toEqual({ week: 1, day: 0 })
    expect(daysOn(p, { week: 1, day: 0, line: 0 }, -1)).toEqual({ week: 0, day: 6 })
    expect(daysOn(p, { week: 0, day: 0, line: 0 }, -1)).toBeUndefined()
    expect(daysOn(p, { week: 1, day: 6, line: 0 }, 1)).toBeUndefined()
  })
})
