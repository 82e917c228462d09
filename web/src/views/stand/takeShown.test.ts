import { beforeEach, expect, it, vi } from 'vitest'
import { effectScope } from 'vue'

import type { MeasuredTake, Take } from '../../api/client'

const settled = vi.fn()
vi.mock('../../api/takes', () => ({ settled }))
vi.mock('../../audio/outbox', async () => {
  const { ref } = await import('vue')
  return { outbox: { all: ref([]), waiting: ref([]), fault: ref() } }
})
vi.mock('vue', async (real) => ({
  ...(await real<typeof import('vue')>()),
  onBeforeUnmount: () => undefined,
}))
const { useTakeShown } = await import('./takeShown')
const kept = (await import('../../audio/outbox')).outbox.all as unknown as { value: unknown[] }

const judged = vi.fn(async () => undefined)
const shown = () => effectScope(true).run(() => useTakeShown(judged))!
const takeOf = (id: string, step = 'up') =>
  ({
    summary: { id, state: 'measured', measured: { decision: { step, next: {} } } },
    analysis: { notes: [] },
    advice: { findings: [] },
  }) as unknown as MeasuredTake

beforeEach(() => {
  judged.mockClear()
  settled.mockReset().mockImplementation(async (take: Take) => take)
  kept.value = []
})

it('shows this device’s word, then the studio’s, and says where they differ', async () => {
  const s = shown()
  s.listening.value = 'one'
  s.showOurs(takeOf('one'))
  await s.show(takeOf('one', 'hold'))
  expect(s.take.value).toEqual(takeOf('one', 'hold'))
  expect(s.otherwise.value).toBe(true)
  expect(judged).toHaveBeenCalledOnce()
  s.clear()
  s.listening.value = 'two'
  s.showOurs(takeOf('two'))
  await s.show(takeOf('two'))
  expect(s.otherwise.value).toBe(false)
})

it('shows nothing of a take that another has been begun after', async () => {
  const s = shown()
  let ready: (take: Take) => void = () => undefined
  settled.mockImplementationOnce(() => new Promise((resolve) => (ready = resolve)))
  const first = s.follow('one', async () => takeOf('one'))
  await Promise.resolve()
  s.clear()
  s.listening.value = 'two'
  ready(takeOf('one'))
  await first
  expect(s.take.value).toBeUndefined()
  expect(judged).not.toHaveBeenCalled()
})

it('waits no longer for one that is refused, or cannot be sent', async () => {
  const s = shown()
  s.listening.value = 'one'
  kept.value = [{ id: 'one', refused: { title: 'No', detail: '' } }]
  await Promise.resolve()
  expect(s.listening.value).toBeUndefined()
  const no = new Error('no line')
  await expect(s.follow('two', () => Promise.reject(no))).rejects.toBe(no)
  expect(s.listening.value).toBeUndefined()
})
