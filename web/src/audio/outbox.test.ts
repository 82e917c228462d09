import { describe, expect, it } from 'vitest'

import { Problem, type Take } from '../api/client'
import { isFinal, useOutbox, type Parts } from './outbox'
import type { Unsent } from './unsent'

const unreachable = new Problem('Manudrill cannot be reached', 'Try again.')

/** What the windows of one browser share. */
function device(takes: Partial<Unsent>[]) {
  const store = new Map<string, Unsent>()
  for (const [i, t] of takes.entries()) {
    const id = `t${i}`
    const whole = { rate: 8000, frames: 3, bpm: 60, assignmentId: 'a', whole: true, ...t }
    store.set(id, { id, startedAt: `2026-05-0${i + 1}T12:00:00Z`, ...whole })
  }
  let turn: Promise<unknown> = Promise.resolve()
  const alone = (action: () => Promise<void>) => {
    const done = turn.then(action)
    turn = done.catch(() => undefined)
    return done
  }
  return { store, alone }
}

/** A box on a device, one of its own by default, with a server that does as it is told. */
function box(
  takes: Partial<Unsent>[],
  answers: (Problem | 'taken' | 'hangs')[],
  films: (Problem | 'taken')[] = [],
  { store, alone } = device(takes),
  taken: Problem | 'taken' = 'taken',
) {
  const sent: string[] = []
  const waits: number[] = []
  const timers: (() => void)[] = []
  let now = Date.parse('2026-05-04T12:00:00Z')
  let hung: (a: Problem | Take) => void = () => undefined
  const parts: Parts = {
    takes: async () => [...store.values()],
    sound: async () => [new Float32Array(3)],
    change: async (id, change) => void store.set(id, { ...store.get(id)!, ...change }),
    forget: async (id) => void store.delete(id),
    send: async (t, file) => {
      expect(file.size).toBe(44 + 9)
      sent.push(t.id)
      const a = answers.shift() ?? 'taken'
      if (a === 'hangs')
        return new Promise((resolve, reject) => {
          hung = (a) => (a instanceof Problem ? reject(a) : resolve(a))
        })
      if (a !== 'taken') throw a
      return { summary: { id: t.id } } as Take
    },
    sendFilm: async (id) => {
      sent.push(`film of ${id}`)
      const a = films.shift() ?? 'taken'
      if (a !== 'taken') throw a
    },
    taken: async (id) => {
      if (taken !== 'taken') throw taken
      return { summary: { id } } as Take
    },
    now: () => now,
    alone,
    later: (action, ms) => (waits.push(ms), timers.push(action)),
  }
  return {
    outbox: useOutbox(parts),
    store,
    sent,
    waits,
    timers,
    pass: (ms: number) => (now += ms),
    /** What the server says at last to what hangs. */
    answer: (a: Problem | Take) => hung(a),
  }
}

describe('the outbox', () => {
  it('hands in what was played to its end, oldest first, and forgets what the server has', async () => {
    const b = box([{}, {}], [])
    await b.outbox.run()
    expect(b.sent).toEqual(['t0', 't1'])
    expect(b.store.size).toBe(0)
  })

  it('sends the hands after their take, again until they are there, and says where they are refused', async () => {
    const film = { blob: new Blob(['hands']), startsAt: 0 }
    const b = box([{ film }], [], [unreachable])
    await b.outbox.run()
    expect(b.sent).toEqual(['t0', 'film of t0'])
    expect(b.store.size).toBe(1) // until all of it is there
    b.timers.splice(0).forEach((again) => again())
    await settle()
    expect(b.sent).toEqual(['t0', 'film of t0', 't0', 'film of t0'])
    expect(b.store.size).toBe(0)

    const refused = box([{ film }], [], [new Problem('This is no video', 'x', 422)])
    await refused.outbox.run()
    expect(refused.store.get('t0')?.refused?.title).toBe('This is no video')
  })

  it('leaves alone what was broken off, until its player decides', async () => {
    const b = box([{ whole: false }, { whole: undefined }], [])
    await b.outbox.run()
    expect(b.sent).toEqual([])
    const heard: string[] = []
    await b.outbox.handIn('t0', (take) => heard.push(take.summary.id))
    await settle()
    expect(heard).toEqual(['t0'])
    expect([...b.store.keys()]).toEqual(['t1'])
  })

  it('tries again, ever more seldom, and loses nothing meanwhile', async () => {
    const down = Array.from({ length: 6 }, () => unreachable)
    const b = box([{}], [...down])
    await b.outbox.run()
    for (let i = 0; i < 5; i++) {
      expect(b.store.size).toBe(1)
      b.timers.shift()!()
      await settle()
    }
    expect(b.waits).toEqual([2_000, 5_000, 15_000, 60_000, 60_000, 60_000])
    expect(b.outbox.fault.value?.title).toBe('Manudrill cannot be reached')
    b.timers.shift()!()
    await settle()
    expect(b.store.size).toBe(0)
    expect(b.outbox.fault.value).toBeUndefined()
  })

  it('keeps what the server refuses, says why, and goes on with the next', async () => {
    const b = box([{}, {}], [new Problem('Already there', 'It is the take of noon.', 409), 'taken'])
    await b.outbox.run()
    expect(b.store.get('t0')?.refused?.detail).toBe('It is the take of noon.')
    expect([...b.store.keys()]).toEqual(['t0'])
    await b.outbox.run()
    expect(b.sent).toEqual(['t0', 't1'])
    await b.outbox.handIn('t0')
    await settle()
    expect(b.store.size).toBe(0)
  })

  it('sends nothing twice at once, however often it is told to', async () => {
    const b = box([{}], ['hangs'])
    void b.outbox.run()
    void b.outbox.run()
    await settle()
    expect(b.sent).toEqual(['t0'])
  })

  it('waits for its turn while another window is at it, and then says that there is no line', async () => {
    const both = device([{}, { whole: false }])
    const first = box([], ['hangs'], [], both)
    const second = box([], [unreachable], [], both)
    void first.outbox.run()
    await settle()
    void second.outbox.handIn('t1')
    await settle()
    expect([first.sent, second.sent]).toEqual([['t0'], []])
    first.answer(unreachable)
    await settle()
    expect(second.outbox.fault.value?.title).toBe('Manudrill cannot be reached')
    expect(second.waits).toEqual([2_000])
    expect(both.store.size).toBe(2)
  })

  it('tells of a take that another window has handed in meanwhile', async () => {
    const both = device([{}, { whole: false }])
    const first = box([], ['hangs', 'taken'], [], both)
    const second = box([], [], [], both)
    const heard: string[] = []
    void first.outbox.run()
    await settle()
    void second.outbox.handIn('t1', (take) => heard.push(take.summary.id))
    await settle()
    first.answer({ summary: { id: 't0' } } as Take)
    await settle()
    expect([first.sent, second.sent]).toEqual([['t0', 't1'], []])
    expect([heard, both.store.size]).toEqual([['t1'], 0])
  })

  it('is not held up by a take that another window has handed in and that is gone since', async () => {
    const both = device([{}, { whole: false }])
    const b = box([], [], [], both, new Problem('Not found', 'The take was thrown away.', 404))
    const elsewhere = both.alone(async () => void both.store.delete('t0'))
    void b.outbox.handIn('t0')
    await elsewhere
    await settle()
    await b.outbox.handIn('t1')
    await settle()
    expect([b.sent, both.store.size]).toEqual([['t1'], 0])
    expect(b.outbox.fault.value).toBeUndefined()
  })

  it.each(Array.from({ length: 30 }, (_, i) => i))(
    'leaves none behind that is handed in %i steps after it began with the others',
    async (steps) => {
      const b = box([{}, { whole: false }], [])
      void b.outbox.run()
      for (let i = 0; i < steps; i++) await Promise.resolve()
      void b.outbox.handIn('t1')
      await settle()
      expect([b.sent, b.store.size]).toEqual([['t0', 't1'], 0])
    },
  )

  it('plans one try at a time, however many takes are played without a line', async () => {
    const takes = [{}, { whole: false }, { whole: false }]
    const b = box(takes, [unreachable, unreachable, unreachable])
    await b.outbox.run()
    for (const id of ['t1', 't2']) {
      await b.outbox.handIn(id)
      await settle()
    }
    expect(b.sent).toEqual(['t0', 't0', 't0'])
    b.timers.splice(0).forEach((again) => again())
    await settle()
    expect(b.sent).toEqual(['t0', 't0', 't0', 't0', 't1', 't2'])
  })

  it('tries again soon when a line is lost that was back, whatever was planned before', async () => {
    const down = Array.from({ length: 4 }, () => unreachable)
    const b = box([{}, { whole: false }], [...down, 'taken', unreachable])
    for (let i = 0; i < 5; i++) await b.outbox.run()
    await b.outbox.handIn('t1')
    await settle()
    expect(b.waits).toEqual([2_000, 5_000, 15_000, 60_000, 2_000])
    expect(b.sent).toEqual(['t0', 't0', 't0', 't0', 't0', 't1'])
    b.timers.splice(0).forEach((again) => again())
    await settle()
    expect(b.sent.slice(6)).toEqual(['t1'])
    expect(b.store.size).toBe(0)
  })

  it('lets the recordings of others wait for them', async () => {
    const b = box([{ personId: 'ann' }, { personId: 'ben' }], [])
    await b.outbox.for('ben')
    expect(b.sent).toEqual(['t1'])
    expect(b.outbox.all.value).toEqual([])
    await b.outbox.for(undefined)
    expect(b.sent).toEqual(['t1'])
    await b.outbox.for('ann')
    expect(b.store.size).toBe(0)
  })

  it('is not held up by a recording of somebody else', async () => {
    const b = box([{}, {}], [new Problem('Not for you', 'Choose another person.', 403), 'taken'])
    await b.outbox.run()
    expect(b.sent).toEqual(['t0', 't1'])
    expect([...b.store.keys()]).toEqual(['t0'])
    expect(b.outbox.fault.value).toBeUndefined()
    expect(b.outbox.all.value).toEqual([]) // theirs to hear and to decide on
    await b.outbox.for('whose it is')
    expect(b.store.size).toBe(0)
  })

  it('gives back what was thrown away, for a day', async () => {
    const b = box([{}], [])
    await b.outbox.discard('t0')
    await b.outbox.run()
    expect([b.sent, b.outbox.all.value]).toEqual([[], []])
    b.pass(23 * 60 * 60 * 1000)
    await b.outbox.tidy()
    await b.outbox.recover('t0')
    expect(b.outbox.all.value).toHaveLength(1)
    await b.outbox.discard('t0')
    b.pass(25 * 60 * 60 * 1000)
    await b.outbox.tidy()
    expect(b.store.size).toBe(0)
  })

  it('tells what may pass from what stays refused', () => {
    const final = (status: number) => isFinal(new Problem('', '', status))
    expect([0, 401, 403, 408, 429, 500, 503, 507].map(final)).not.toContain(true)
    expect([400, 404, 409, 410, 413, 422].map(final)).not.toContain(false)
  })
})

async function settle() {
  for (let i = 0; i < 60; i++) await Promise.resolve()
}
