import { afterEach, describe, expect, it, vi } from 'vitest'

import type { SavedRoutine } from '../../api/client'
import type { DeviceVerdict } from '../../audio/ear'
import { aboutMinutes, amountWords, itemName } from '../../draw/routinewords'
import { inMeasure, moved } from '../plan/items'
import { keyOf, taught } from './keys'
import { say, sayingOf } from './saying'

const said = (step: 'up' | 'hold' | 'down', reached = false, finding?: string) =>
  ({
    advice: { tally: '15 of 16 notes right', findings: finding ? [{ text: finding }] : [] },
    measured: { decision: { step, reached, next: { bpm: 76 } } },
  }) as unknown as DeviceVerdict

describe('what is said of a take aloud', () => {
  it('is the one thing that matters, and what comes next', () => {
    expect(sayingOf(said('up', false, 'Even.'))).toBe('Even. Up to 76.')
    expect(sayingOf(said('down'))).toBe('15 of 16 notes right Down to 76.')
    expect(sayingOf(said('hold', true, 'Even.'))).toBe('Even. Target reached.')
  })

  it('is told in tones where the browser has no voice', () => {
    const tones: { frequency: { value: number }; onended?: () => void }[] = []
    const close = vi.fn()
    const ctx = {
      currentTime: 0,
      createOscillator() {
        const tone = {
          frequency: { value: 0 },
          connect: (to: unknown) => to,
          start() {},
          stop() {},
        }
        tones.push(tone)
        return tone
      },
      createGain: () => ({
        gain: { setValueAtTime() {}, exponentialRampToValueAtTime() {} },
        connect: (to: unknown) => to,
      }),
      close,
    } as unknown as AudioContext
    say(said('up'), () => ctx)
    const heard = tones.map((t) => t.frequency.value)
    expect(heard).toEqual([...heard].sort((a, b) => a - b))
    expect(new Set(heard).size).toBe(3)
    tones.at(-1)?.onended?.()
    expect(close).toHaveBeenCalledOnce()
  })
})

describe('the keys of a run', () => {
  afterEach(() => (taught.value = {}))

  it('start and hold, repeat and go on', () => {
    expect(['Enter', ' ', 'r', 'N', 'ArrowRight', 't', 'x'].map(keyOf)).toEqual(
      ['go', 'go', 'repeat', 'next', 'skip', 'tired', undefined], // prettier-ignore
    )
  })

  it('can be taught, as those of a pedal', () => {
    taught.value = { PageDown: 'next', r: 'go' }
    expect(['PageDown', 'r', ' '].map(keyOf)).toEqual(['next', 'go', 'go'])
  })
})

describe('a routine in words', () => {
  const of = { drills: [{ drillId: 'a', name: 'Trill' }] } as unknown as SavedRoutine
  it('names items and amounts', () => {
    expect(itemName({ kind: 'drill', drill: 'a' }, of)).toBe('Trill')
    expect(itemName({ kind: 'drill', drill: 'b' }, of)).toBe('A drill that was withdrawn')
    expect(itemName({ kind: 'note', text: 'Slow.' }, of)).toBe('Slow.')
    const amount = (by: 'takes' | 'seconds' | 'clean') =>
      amountWords({ kind: 'drill', enough: inMeasure(by) })
    expect(amount('takes')).toBe('3 takes')
    expect(amount('seconds')).toBe('3 min')
    expect(amount('clean')).toBe('until 3 of the last 5 are clean')
    expect(amountWords({ kind: 'rest', seconds: 90 })).toBe('1 min 30 s')
    expect(aboutMinutes(10)).toBe('about 1 min')
    expect(aboutMinutes(400)).toBe('about 7 min')
  })

  it('is put in another order', () => {
    expect(moved(['a', 'b', 'c'], 0, 2)).toEqual(['b', 'c', 'a'])
    expect(moved(['a', 'b', 'c'], 2, 1)).toEqual(['a', 'c', 'b'])
    expect(moved(['a', 'b'], 0, -1)).toEqual(['a', 'b'])
  })
})
