import { expect, it, vi } from 'vitest'

import { changeUnsent, UnsentTake, unsentTakes, type Unsent } from './unsent'

/**
 * A store that is slow, as on a busy device. As in a browser one change runs after the other
 * (W3C, Indexed Database API 3.0, "transaction scheduling"), and what is kept is copied.
 */
const kept = vi.hoisted(() => new Map<string, object>())
vi.mock('idb', () => {
  let last = Promise.resolve()
  const takes = {
    get: (id: string) => kept.get(id),
    put: (take: { id: string }) => void kept.set(take.id, { ...take }),
  }
  function transaction() {
    const turn = last
    const store = {
      get: (id: string) => turn.then(() => takes.get(id)),
      put: (take: { id: string }) => turn.then(() => takes.put(take)),
    }
    const done = turn.then(() => new Promise<void>((end) => setTimeout(end, 5)))
    last = done
    return {
      store,
      objectStore: (name: string) => (name === 'takes' ? store : { put: () => turn }),
      done,
    }
  }
  const db = {
    put: async (_: string, take: { id: string }) => takes.put(take),
    getAll: async () => [...kept.values()],
    transaction,
  }
  return { openDB: async () => db }
})

const take: Unsent = {
  id: 'two',
  assignmentId: 'a',
  bpm: 60,
  rate: 48000,
  startedAt: '2026-01-01T00:00:00Z',
  frames: 0,
}

it('keeps what is said of a recording while its last pieces are still being kept', async () => {
  const made = new UnsentTake(take, () => undefined)
  made.append(new Float32Array(9000))
  await made.kept()
  for (const change of [{ whole: true }, { discardedAt: '2026-01-01T00:01:00Z' }]) {
    made.append(new Float32Array(9000))
    made.append(new Float32Array(9000))
    await changeUnsent('two', change)
    await made.kept()
    expect((await unsentTakes())[0]).toMatchObject({ ...change, frames: made.take.frames })
  }
  made.strike([])
  await made.kept()
  expect((await unsentTakes())[0]).toMatchObject({ whole: true })
})
