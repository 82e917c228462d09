import { expect, it } from 'vitest'

import type { Overview } from '../../api/client'
import { reportOf } from './report'

const point = (speed: number, counting: number, clean: number) => ({
  begins: '2026-03-02T00:00:00Z',
  speed,
  spreadPercent: 5,
  counting,
  clean,
})

it('adds up what was practised', () => {
  const day = { date: '2026-03-03T00:00:00Z', takes: 2, seconds: 90, slurSeconds: 0 }
  const o = {
    weeks: [
      { begins: '2026-03-02T00:00:00Z', days: [day, day], attacks: [] },
      { begins: '2026-03-09T00:00:00Z', days: [], attacks: [] },
    ],
    drills: [
      {
        id: 'a',
        name: 'A',
        unit: 'bpm',
        target: 120,
        gate: {},
        points: [point(60, 4, 1), point(72, 3, 3)],
      },
      { id: 'b', name: 'B', unit: 'bpm', target: 90, gate: {}, points: [] },
    ],
    groups: [
      { kind: 'pair', weeks: [], text: 'The pair 3→4 comes 9 ms late; at first it was 20.' },
      { kind: 'string', weeks: [] },
    ],
    said: [],
  } as unknown as Overview
  expect(reportOf(o)).toEqual({
    from: '2026-03-02T00:00:00Z',
    to: '2026-03-15T00:00:00.000Z',
    days: 2,
    allDays: 14,
    seconds: 180,
    drills: [{ name: 'A', unit: 'bpm', from: 60, to: 72, target: 120, takes: 7, clean: 4 }],
    pairs: ['The pair 3→4 comes 9 ms late; at first it was 20.'],
  })
})

it('tells of nothing where there is nothing', () => {
  expect(reportOf({ weeks: [], drills: [], groups: [], said: [] })).toMatchObject({
    days: 0,
    allDays: 0,
    drills: [],
  })
})
