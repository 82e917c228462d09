import { afterEach, beforeEach, expect, it, vi } from 'vitest'

import { EndlessClick, Metronome } from './metronome'
import { plainPulse } from './pulse'

/** An audio clock that only notes what is handed to it. */
class Clock {
  currentTime = 0
  sampleRate = 48000
  destination = {}
  readonly handed: { at: number; stopped: boolean }[] = []
  private node = () => ({ gain: {}, pan: {}, connect: (to: unknown) => to, disconnect() {} })
  createGain = this.node
  createStereoPanner = this.node
  createBuffer = () => ({ copyToChannel() {} })
  createBufferSource() {
    const one = { at: 0, stopped: false }
    this.handed.push(one)
    return {
      connect() {},
      start: (at: number) => void (one.at = at),
      stop: () => void (one.stopped = true),
    }
  }
  /** Lets time go on, with the page's timers. */
  async pass(seconds: number) {
    for (let left = seconds; left > 1e-9; left -= 0.1) {
      this.currentTime += 0.1
      await vi.advanceTimersByTimeAsync(100)
    }
  }
  get heard() {
    return this.handed.filter((h) => !h.stopped).map((h) => h.at)
  }
}
const voice = { sound: 'usual', ears: 'left', volume: 1 } as const
const clockOf = () => {
  const clock = new Clock()
  return { clock, ctx: clock as unknown as AudioContext }
}
beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

it('clicks at its tempo for as long as one likes', async () => {
  const { clock, ctx } = clockOf()
  const click = new EndlessClick(ctx, { ...plainPulse, bpm: 93 }, voice)
  click.start()
  await clock.pass(60)
  clock.heard.forEach((at, i) => expect(at).toBeCloseTo(clock.heard[0]! + (i * 60) / 93, 6))
  expect(clock.heard.length).toBeGreaterThan(92)
  click.stop()
})

it('goes on from where it is when the tempo is changed, with no click twice or left out', async () => {
  const { clock, ctx } = clockOf()
  const click = new EndlessClick(ctx, { ...plainPulse, bpm: 120 }, voice)
  click.start()
  await clock.pass(4)
  click.change({ ...plainPulse, bpm: 60 }, voice)
  await clock.pass(6)
  const at = clock.heard.filter((t) => t <= clock.currentTime)
  const gaps = at.slice(1).map((t, i) => t - at[i]!)
  for (const gap of gaps)
    expect(Math.min(Math.abs(gap - 0.5), Math.abs(gap - 1))).toBeLessThan(1e-6)
  const slower = gaps.findIndex((g) => g > 0.9)
  expect(at[slower]).toBeLessThan(4.7)
  expect(gaps.slice(slower).every((g) => g > 0.9)).toBe(true)
  click.stop()
})

it('begins a bar with another metre, and tells the beat', async () => {
  const { clock, ctx } = clockOf()
  const click = new EndlessClick(ctx, { ...plainPulse, bpm: 60 }, voice)
  click.start()
  expect(click.at(0.05)).toBeUndefined()
  await clock.pass(2)
  expect(click.at(clock.currentTime)).toEqual({ beat: 1, bpm: 60 })
  click.change({ ...plainPulse, bpm: 60, beatsPerBar: 3 }, voice)
  await clock.pass(1)
  expect(click.at(clock.currentTime)?.beat).toBe(0)
  click.stop()
})

it('takes back what was not heard yet', () => {
  const { clock, ctx } = clockOf()
  const metronome = new Metronome(ctx, voice)
  metronome.play([0, 1, 2].map((at) => ({ at, weight: 'beat' as const })))
  metronome.takeBack(1)
  expect(clock.heard).toEqual([0])
})
