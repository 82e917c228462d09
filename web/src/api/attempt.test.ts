import { expect, it } from 'vitest'

import { useAttempt } from './attempt'

it('keeps what went wrong with the last, and forgets it with the next', async () => {
  const { problem, attempt } = useAttempt()
  await attempt(() => Promise.reject(new TypeError('Failed to fetch')))
  expect(problem.value).toBeDefined()
  await attempt(() => Promise.resolve())
  expect(problem.value).toBeUndefined()
})

it('does one thing at a time, says which, and can be pressed again after a failure', async () => {
  const { problem, busy, doing, once } = useAttempt()
  let done = 0
  let end = () => {}
  const first = once(
    () => new Promise<void>((resolve) => (end = resolve)).then(() => done++),
    'saving',
  )
  expect([busy.value, doing.value]).toEqual([true, 'saving'])
  await once(async () => done++)
  expect(done, 'the second press').toBe(0)
  end()
  await first
  expect([done, busy.value]).toEqual([1, false])
  await once(() => Promise.reject(new Error('no')))
  expect(problem.value).toBeDefined()
  expect(busy.value).toBe(false)
  await once(async () => done++)
  expect(done).toBe(2)
})
