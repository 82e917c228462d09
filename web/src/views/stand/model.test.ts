import { expect, it } from 'vitest'

import { samplesIn } from './model'

it('reads samples of 16 bits, least byte first', () => {
  const base64 = btoa(String.fromCharCode(0, 0, 0, 0x40, 0, 0x80, 0xff, 0x7f))
  expect([...samplesIn(base64)]).toEqual([0, 0.5, -1, 32767 / 32768])
})
