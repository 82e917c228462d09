import { beforeEach, expect, test } from 'vitest'

import { clickTimes, delayNow, delays, keepDelay } from './delay'
import { chosenMicrophone } from './microphones'

beforeEach(() => {
  delays.value = {}
  chosenMicrophone.value = ''
})

test('a delay is kept for the input it was measured with', () => {
  keepDelay({ seconds: 0.04, at: 'today' })
  chosenMicrophone.value = 'other'
  expect(delayNow()).toBeUndefined()
  keepDelay({ seconds: 0.2, at: 'today' })
  expect(delayNow()?.seconds).toBe(0.2)
  keepDelay(undefined)
  expect(delayNow()).toBeUndefined()
  chosenMicrophone.value = ''
  expect(delayNow()?.seconds).toBe(0.04)
})

test('clicks are further apart than a device is late, and uneven only where they are heard', () => {
  for (const played of [false, true]) {
    const { all, measured } = clickTimes(played)
    const gaps = all.slice(1).map((t, i) => t - all[i]!)
    expect(Math.min(...gaps)).toBeGreaterThan(0.6)
    expect(new Set(gaps.map((g) => g.toFixed(3))).size > 1).toBe(!played)
    expect(measured).toHaveLength(16)
  }
})
