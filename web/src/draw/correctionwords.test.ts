import { expect, it } from 'vitest'

import type { Advice, Analysis } from '../api/client'
import { deniedWords, kindWords, toldOf } from './correctionwords'

const analysis = {
  notes: Array(16).fill({}),
  course: {
    events: [
      { kind: 'stop', before: 12, pass: 1, t: 9, seconds: 2 },
      { kind: 'correction', before: 3, pass: 0, t: 3 },
      { kind: 'otherTempo', before: 0, pass: 0, t: 2, share: 0.9 },
    ],
  },
} as unknown as Analysis
const advice = {
  mistakes: [
    { status: 'missed', index: 5, t: 4, text: 'note 6, missed' },
    { index: 5, t: 4.25, text: 'after note 6: a note too many' },
  ],
  findings: [
    { about: 'course', text: 'You stopped.' },
    { about: 'late', text: 'The ring finger comes late.' },
  ],
} as unknown as Advice

it('lists all that can be said not to be so, each with what is said of it', () => {
  expect(toldOf(analysis, advice, 8)).toEqual([
    {
      text: 'waited 2.0 s, before pass 2, note 5',
      what: { of: 'event', kind: 'stop', index: 12 },
    },
    {
      text: 'corrected, pass 1, note 4',
      what: { of: 'event', kind: 'correction', index: 3 },
    },
    { text: 'note 6, missed', what: { of: 'note', kind: 'missed', index: 5 } },
    { text: 'after note 6: a note too many', what: { of: 'extra', kind: 'extra', t: 4.25 } },
    { text: 'The ring finger comes late.', what: { of: 'finding', kind: 'late' } },
  ])
})

it('names what was said', () => {
  expect(deniedWords({ of: 'note', kind: 'missed', index: 9 }, 8, 2)).toBe(
    'a missed note, pass 2, note 2',
  )
  expect(deniedWords({ of: 'note', kind: 'wrong' }, 8, 1)).toBe('a wrong note, note 1')
  expect(deniedWords({ of: 'finding', kind: 'gaps' }, 8, 2)).toBe('notes break off')
  expect(kindWords({ of: 'event', kind: 'transposed' })).toBe('other frets')
})
