import { readFileSync } from 'node:fs'

import { expect, it } from 'vitest'

import { homeOf } from './home'

interface Case {
  notes: { string: number; fret: number }[]
  position: number
  strings: number[]
}
const cases = JSON.parse(readFileSync('../core/drill/testdata/homes.json', 'utf8')) as Case[]

it('finds the home of a cell as the core does', () => {
  expect(cases.length).toBeGreaterThan(5)
  for (const { notes, ...home } of cases) expect(homeOf(notes)).toEqual(home)
})
