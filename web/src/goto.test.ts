import { expect, it } from 'vitest'

import { AfterG } from './goto'

/** What letters mean that are pressed a tenth of a second apart. */
function meant(keys: string, apart = 100): string {
  const after = new AfterG()
  return [...keys].map((k, i) => after.letter(k, i * apart) ?? '').join('')
}

it('is the letter after G, whatever its case', () => {
  expect(meant('gr')).toBe('r')
  expect(meant('GS')).toBe('s')
  expect(meant('xgrgs')).toBe('rs')
})
it('is no letter alone, and not the third', () => {
  expect(meant('rs')).toBe('')
  expect(meant('grs')).toBe('r')
  expect(meant('ggr')).toBe('g')
})
it('is not waited for for ever', () => {
  expect(meant('gr', 1600)).toBe('')
})
