import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { Problem, type Routine, type Stand, type Take } from '../../api/client'
import { nothing, type DeviceVerdict } from '../../audio/ear'
import type { Phase, RunEvent, StandCore, Told } from '../../audio/standCore'
import type { UnsentTake } from '../../audio/unsent'
import { useRun, type OnStand } from './run'

const routine: Routine = {
  name: 'x',
  items: [
    { kind: 'drill', drill: 'a', enough: { by: 'takes', count: 2 } },
    { kind: 'rest', seconds: 30 },
  ],
}
const stand = {
  assignment: {
    id: 'given',
    drillId: 'a',
    drillName: 'Trill',
    student: { demo: false },
    rung: { bpm: 100, notesPerBeat: 2 },
  },
  chart: { bpm: 100, notesPerBeat: 2 },
  climbing: { ladder: { stepBpm: 4 } },
} as Stand

const told = (phase: Phase, item = 0, then = 0): Told =>
  ({ state: { phase, item }, left: '', share: 0, then }) as Told
const verdict = (step: 'up' | 'hold', foreign = false) =>
  ({
    analysis: { foreign, notes: [] },
    advice: { findings: [] },
    clean: step === 'up',
    climbing: { results: [] },
    measured: { decision: { step, next: { bpm: step === 'up' ? 110 : 100, notesPerBeat: 2 } } },
  }) as unknown as DeviceVerdict
const made = { take: { id: 'one', assignmentId: 'given' } } as UnsentTake

/** A stand whose core says what it is told to, one after the other. */
function standThat(...says: Told[]) {
  const events: RunEvent[] = []
  let running = false
  const ask = vi.fn(async (what: string, asks: { event: RunEvent }) => {
    if (what === 'lay') return { chart: { bpm: 110 }, beatsPerPass: 4 }
    if (asks.event.key !== 'tick') events.push(asks.event)
    return says.length > 1 ? says.shift() : says[0]
  })
  const on = {
    core: { ask } as unknown as StandCore,
    running: () => running,
    start: vi.fn<OnStand['start']>(async () => void (running = true)),
    stop: vi.fn(async () => void (running = false)),
    handIn: vi.fn<OnStand['handIn']>(async () => undefined),
    setAside: vi.fn(async () => undefined),
    standNow: vi.fn<OnStand['standNow']>(async () => stand),
    now: () => 5,
    pause: () => 4,
    warmUp: vi.fn(() => false),
  } satisfies OnStand
  const stands = new Map([['a', stand]])
  const run = useRun(routine, stands, on)
  return { run, on, events, stands, ended: () => (running = false) }
}

beforeEach(() => void vi.useFakeTimers())
afterEach(() => {
  vi.useRealTimers()
  vi.restoreAllMocks()
})

describe('a run of a routine', () => {
  it('begins with one take to warm up where that is wished, which moves nothing', async () => {
    const { run, on, events, stands } = standThat(told('playing'), told('pausing'), told('playing'))
    on.warmUp.mockReturnValue(true)
    await run.press('start')
    expect(on.start.mock.lastCall?.[1]).toEqual({ aside: 'ownTempo' })
    expect(run.warming.value).toBe(true)
    const aside = { take: { ...made.take, aside: 'ownTempo' } } as UnsentTake
    await run.ended(aside, 'finished', verdict('hold'))
    expect(events.at(-1)).toMatchObject({ key: 'ended', aside: true })
    expect(stands.get('a')?.assignment.rung.bpm).toBe(100)
    await run.press('next')
    expect(on.start.mock.lastCall?.[1]).toBeUndefined()
    expect(run.warming.value).toBe(false)
  })

  it('plays at a tempo of one’s own beside the ladder until the next drill', async () => {
    const { run, on, stands, events } = standThat(told('pausing'), told('playing'))
    await run.press('start')
    run.change(-1)
    run.change(-1)
    expect(run.own.value).toBe(92)
    await run.press('next')
    expect(on.core.ask).toHaveBeenCalledWith(
      'lay',
      expect.objectContaining({ rung: { bpm: 92, notesPerBeat: 2 } }),
    )
    expect(on.start.mock.lastCall?.[1]).toEqual({ aside: 'ownTempo' })
    const aside = { take: { ...made.take, aside: 'ownTempo' } } as UnsentTake
    await run.ended(aside, 'finished', verdict('up'))
    expect(stands.get('a')?.assignment.rung.bpm).toBe(100)
    expect(events.at(-1)).toMatchObject({ key: 'ended', aside: false })
    run.change(1)
    run.change(1)
    expect(run.own.value).toBeUndefined() // the rung again
  })

  it('records while the core says that it plays, and only then', async () => {
    const { run, on } = standThat(told('playing'), told('playing'), told('resting', 1, -1))
    await run.press('start')
    expect(on.start).toHaveBeenCalledExactlyOnceWith(stand)
    await vi.advanceTimersByTimeAsync(200) // time goes on, and the take with it
    expect(on.start).toHaveBeenCalledOnce()
    await run.press('skip')
    expect(on.stop).toHaveBeenCalledOnce()
  })

  it('begins no other take while the verdict on the last is waited for', async () => {
    const { run, on, ended } = standThat(told('playing'))
    await run.press('start')
    ended()
    await vi.advanceTimersByTimeAsync(1000)
    expect(on.start).toHaveBeenCalledOnce()
  })

  it('plays the take anew that is to be repeated', async () => {
    const { run, on } = standThat(told('playing'))
    await run.press('start')
    await run.press('repeat')
    expect(on.stop).toHaveBeenCalledOnce()
    expect(on.start).toHaveBeenCalledTimes(2)
  })

  it('hands a take in, lays the next rung, and says how it was', async () => {
    const { run, on, events, stands } = standThat(told('playing'), told('pausing'), told('playing'))
    await run.press('start')
    await run.ended(made, 'finished', verdict('up'))
    expect(on.handIn.mock.calls[0]?.[0]).toBe(made)
    expect(events.at(-1)).toEqual({
      key: 'ended',
      at: 5,
      heard: true,
      clean: true,
      aside: false,
      pause: 4,
    })
    expect(stands.get('a')?.chart.bpm).toBe(110)
    expect(stands.get('a')?.assignment.rung).toEqual({ bpm: 110, notesPerBeat: 2 })
    await run.press('next')
    expect(on.start).toHaveBeenLastCalledWith(stands.get('a'))
    expect(run.verdict.value).toBeUndefined()
  })

  it('hands in nothing where nothing was heard, and counts another drill for nothing', async () => {
    const { run, on, events, stands } = standThat(told('playing'), told('pausing'))
    await run.press('start')
    await run.ended(made, 'finished', nothing)
    expect(on.handIn).not.toHaveBeenCalled()
    expect(on.setAside).toHaveBeenCalledOnce()
    expect(events.at(-1)).toMatchObject({ heard: false, clean: false })
    await run.ended(made, 'finished', verdict('up', true))
    expect(events.at(-1)).toMatchObject({ heard: false })
    expect(stands.get('a')?.chart.bpm).toBe(100)
  })

  it('goes on where the device cannot judge: the studio will', async () => {
    const { run, on, events } = standThat(told('playing'), told('pausing'))
    await run.press('start')
    await run.ended(made, 'finished', undefined)
    expect(on.handIn).toHaveBeenCalledOnce()
    expect(events.at(-1)).toMatchObject({ key: 'ended', heard: true, clean: false })
  })

  it('plays on where the studio says, which decides', async () => {
    const { run, on, stands } = standThat(told('playing'), told('pausing'))
    await run.press('start')
    await run.ended(made, 'finished', verdict('up'))
    expect(stands.get('a')?.chart.bpm).toBe(110)
    const [, then] = on.handIn.mock.calls[0]!
    const judged = {
      summary: {
        assignmentId: 'given',
        state: 'measured',
        measured: { decision: { step: 'hold', next: {} } },
      },
      analysis: { notes: [] },
      advice: { findings: [] },
    } as unknown as Take
    then(judged)
    await vi.advanceTimersByTimeAsync(0)
    expect(stands.get('a')).toBe(stand)
    expect(run.otherwise.value).toBe('Trill')
  })

  it('waits, and says why, where the microphone goes away or cannot be had', async () => {
    const { run, on, events } = standThat(
      told('playing'),
      told('waiting'),
      told('playing'),
      told('waiting'),
    )
    await run.press('start')
    await run.ended(made, 'lost')
    expect(events.at(-1)?.key).toBe('failed')
    expect(run.problem.value?.title).toBe('The input went away')
    on.start.mockRejectedValueOnce(new Problem('The microphone was refused', 'Allow it.'))
    await run.press('start')
    await vi.advanceTimersByTimeAsync(0)
    expect(events.at(-1)?.key).toBe('failed')
    expect(run.problem.value?.title).toBe('The microphone was refused')
  })

  it('does nothing any more once it is left', async () => {
    const { run, on } = standThat(told('playing'))
    run.close()
    await run.press('start')
    await vi.advanceTimersByTimeAsync(1000)
    expect(on.start).not.toHaveBeenCalled()
  })

  it('takes two keys at once one after the other', async () => {
    const { run, on } = standThat(told('playing'), told('resting', 1, -1))
    await Promise.all([run.press('start'), run.press('skip')])
    expect(on.start).toHaveBeenCalledOnce()
    expect(on.stop).toHaveBeenCalledOnce()
    expect(run.told.value?.state.phase).toBe('resting')
  })
})
