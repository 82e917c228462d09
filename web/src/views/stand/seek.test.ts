import { expect, it, vi } from 'vitest'

import type { Stand } from '../../api/client'
import { nothing, type DeviceVerdict } from '../../audio/ear'
import type { Seeking, StandCore } from '../../audio/standCore'
import type { Besides } from './recording'
import { useSeek } from './seek'

const stand = {
  assignment: { rung: { bpm: 60, notesPerBeat: 2 } },
  chart: { bpm: 60, notesPerBeat: 2 },
  climbing: { ladder: {} },
} as Stand
const next = (bpm: number): Seeking => ({
  search: { bpm, clean: [], unclean: [] },
  rung: { bpm, notesPerBeat: 2 },
  next: { chart: { ...stand.chart, bpm }, beatsPerPass: 8 },
  sure: false,
})
const found: Seeking = { ...next(84), next: undefined, sure: true }
const said = (clean: boolean) => ({ clean }) as DeviceVerdict

function search(...says: Seeking[]) {
  let besides: Besides = {}
  let clock = 0
  const pending: (() => void)[] = []
  const ask = vi.fn<(what: string, asks: object) => Promise<Seeking | undefined>>(async () =>
    says.shift(),
  )
  const on = {
    core: { ask } as unknown as StandCore,
    start: vi.fn(async (_stand: Stand, with_: Besides) => void (besides = with_)),
    stop: vi.fn(async () => besides.passing?.('stopped')),
    barsCountedIn: () => 2,
    now: () => (clock += 5),
    later: (action: () => void) => void pending.push(action),
  }
  const seek = useSeek(() => stand, on)
  const settle = () => new Promise((resolve) => setTimeout(resolve))
  return {
    ...seek,
    on,
    ask,
    ends: async (...how: Parameters<NonNullable<Besides['passing']>>) => {
      besides.passing?.(...how)
      await settle()
    },
    read: async () => {
      pending.splice(0).forEach((action) => action())
      await settle()
    },
  }
}

it('plays one short take after the other, none of which is kept, until the tempo is found', async () => {
  const s = search(next(60), next(72), found)
  await s.go()
  expect(s.on.start.mock.lastCall?.[0].chart.bpm).toBe(60)
  expect(s.on.start.mock.lastCall?.[1].passing).toBeTypeOf('function')
  await s.ends('finished', said(true))
  expect([s.phase.value, s.last.value]).toEqual(['reading', 'clean'])
  expect(s.ask.mock.lastCall?.[1]).toMatchObject({
    take: 'clean',
    search: { bpm: 60 },
    barBeats: 8,
  })
  await s.read()
  expect(s.on.start.mock.lastCall?.[0].chart.bpm).toBe(72)
  await s.ends('finished', said(false))
  expect(s.ask.mock.lastCall?.[1]).toMatchObject({ take: 'unclean', seconds: 6.6 })
  expect(s.phase.value).toBe('over')
  expect(s.on.start).toHaveBeenCalledTimes(2)
})

it('is held by the same key, and goes on at the same tempo', async () => {
  const s = search(next(60), next(72))
  await s.go()
  await s.go()
  expect(s.on.stop).toHaveBeenCalledOnce()
  expect(s.phase.value).toBe('held')
  expect(s.ask).toHaveBeenCalledOnce() // a take that was broken off says nothing
  await s.go()
  expect(s.on.start).toHaveBeenCalledTimes(2)
  await s.ends('finished', nothing)
  expect(s.last.value).toBe('unheard')
  await s.go() // while what was said is read
  await s.read()
  expect(s.on.start).toHaveBeenCalledTimes(2)
})

it('says what keeps it from going on', async () => {
  const s = search(next(60), next(72))
  await s.go()
  await s.ends('lost')
  expect(s.problem.value?.title).toBe('The input went away')
  await s.go()
  expect(s.problem.value).toBeUndefined()
  await s.ends('finished')
  expect(s.problem.value?.title).toContain('cannot judge')
  s.on.start.mockRejectedValueOnce(new Error('taken'))
  await s.go()
  expect(s.phase.value).toBe('held')
  expect(s.problem.value).toBeDefined()
})

it('does nothing once it was left', async () => {
  const s = search(next(60), next(72))
  await s.go()
  s.leave()
  await s.ends('finished', said(true))
  expect(s.ask).toHaveBeenCalledOnce()
})
