import { expect, it } from 'vitest'

import { mondayOf, reportWords, weekWords } from './handwords'

const week = (begins: string, slurSeconds: number) => ({
  begins,
  takes: 3,
  seconds: 900,
  slurSeconds,
})

it('counts weeks from their Monday, in UTC', () => {
  const monday = Date.parse('2026-11-23T00:00:00Z')
  expect(mondayOf(new Date('2026-11-23T00:00:00Z'))).toBe(monday)
  expect(mondayOf(new Date('2026-11-29T23:59:59Z'))).toBe(monday)
})

it('tells how long was slurred this week and the one before', () => {
  const weeks = [week('2026-11-23T00:00:00Z', 610), week('2026-11-16T00:00:00Z', 1200)]
  const friday = new Date('2026-11-27T12:00:00Z')
  expect(weekWords(weeks, friday)).toBe('Slurred this week: 10 min; the week before: 20 min.')
  expect(weekWords(weeks.slice(1), friday)).toContain('this week: 0 min')
  expect(weekWords([], friday)).toBe('')
})

it('tells a report in a few words', () => {
  expect(reportWords({ kind: 'hurts', aches: ['wrist', 'thumb'] })).toBe('it hurts: wrist, thumb')
  expect(reportWords({ kind: 'tired' })).toBe('tired')
  expect(reportWords({ kind: 'after', effort: 7 })).toBe('effort 7 of 10')
  expect(reportWords({ kind: 'after', effort: 7, aches: ['thumb'] })).toBe(
    'effort 7 of 10, aches: thumb',
  )
})
