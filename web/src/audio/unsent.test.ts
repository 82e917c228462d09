import { expect, it, vi } from 'vitest'

import {
  changeUnsent,
  forgetUnsent,
  UnsentTake,
  unsentSound,
  unsentTakes,
  type Unsent,
} from './unsent'

// The store of a device without room, or of a browser that gives none.
vi.mock('idb', () => ({ openDB: () => Promise.reject(new Error('no room')) }))

vi.stubGlobal('window', new EventTarget())

const take = (id: string): Unsent => ({
  id,
  assignmentId: 'a',
  bpm: 60,
  rate: 48000,
  startedAt: '2026-01-01T00:00:00Z',
  frames: 0,
})
const asked = () => !window.dispatchEvent(new Event('beforeunload', { cancelable: true }))

it('holds a recording in memory where there is no room, says so once, and hands it out whole', async () => {
  vi.spyOn(console, 'error').mockReturnValue()
  const told = vi.fn()
  const made = new UnsentTake(take('one'), told)
  for (const v of [1, 2, 3]) made.append(new Float32Array(9000).fill(v))
  await made.kept()
  expect(told).toHaveBeenCalledOnce()
  expect(await unsentTakes()).toMatchObject([{ id: 'one', frames: 27000, unkept: true }])
  const sound = await unsentSound('one')
  expect(sound.map((c) => [c.length, c[0]])).toEqual([
    [9000, 1],
    [9000, 2],
    [9000, 3],
  ])
  expect(asked(), 'whoever leaves is asked').toBe(true)

  await changeUnsent('one', { whole: true })
  expect((await unsentTakes())[0]?.whole).toBe(true)
  await forgetUnsent('one')
  await expect(unsentTakes()).rejects.toThrow('no room')
  expect(asked()).toBe(false)
})
