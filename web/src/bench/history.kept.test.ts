// @vitest-environment happy-dom
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'

import { useHistory } from './history'

beforeEach(() => {
  vi.useFakeTimers()
  localStorage.clear()
})
afterEach(() => vi.useRealTimers())

const pointer = (type: string) => dispatchEvent(new Event(type))

it('makes one step of a drag, however long it is held still', async () => {
  const h = useHistory('held', () => 7)
  const set = async (to: number, ms: number) => {
    h.value.value = to
    await nextTick()
    vi.advanceTimersByTime(ms)
  }
  pointer('pointerdown')
  await set(10, 5000)
  await set(4, 5000)
  pointer('pointerup')
  h.undo()
  expect(h.value.value).toBe(7)
  expect(h.canUndo.value).toBe(false)

  await set(8, 5000) // by keys each is one of its own
  await set(9, 5000)
  h.undo()
  expect(h.value.value).toBe(8)
  h.leave()
})

it('keeps a drag as soon as it is let go, where the pause is over', async () => {
  const h = useHistory('held', () => 7)
  pointer('pointerdown')
  h.value.value = 10
  await nextTick()
  vi.advanceTimersByTime(5000)
  expect(localStorage.getItem('held')).toBeNull()
  pointer('pointerup')
  expect(JSON.parse(localStorage.getItem('held') ?? '')).toMatchObject({ past: ['7'], now: '10' })
  h.leave()
})

it('rests on what is saved, with all its steps and what was set meanwhile, under another key too', async () => {
  const h = useHistory('begun', () => 1)
  h.value.value = 2
  h.settle()
  h.value.value = 3 // while the two is on its way
  await nextTick()
  h.saved(2, 1)
  h.moveTo('own')
  h.value.value = 4 // before the page is left
  h.leave()
  expect(localStorage.getItem('begun')).toBeNull()
  const own = useHistory('own', () => 0)
  expect(own.revision()).toBe(1)
  own.rebase(2, 1)
  expect(own.value.value).toBe(4)
  own.undo()
  own.undo()
  own.undo()
  expect(own.value.value).toBe(1)
  own.leave()
})
