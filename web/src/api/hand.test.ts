import { afterEach, beforeEach, expect, it, vi } from 'vitest'

const put = vi.fn()
const remove = vi.fn()
vi.mock('./client', async (real) => ({
  ...(await real<typeof import('./client')>()),
  answer: (call: Promise<unknown>) => call,
  client: { PUT: put, DELETE: remove },
}))
const kept = new Map<string, string>()
vi.stubGlobal('localStorage', {
  getItem: (k: string) => kept.get(k) ?? null,
  setItem: (k: string, v: string) => kept.set(k, v),
  removeItem: (k: string) => kept.delete(k),
})
const { Problem } = await import('./client')
const { sayOfHand, sayWhatWaits, unsay } = await import('./hand')
const { painOf, painTold } = await import('./pain')
const hurtsHere = (studentId: string) => !!painOf(studentId)

const noLine = new Problem('No line', '', 0)
beforeEach(() => {
  vi.useFakeTimers()
  put.mockReset().mockResolvedValue(undefined)
  remove.mockReset().mockResolvedValue(undefined)
})
afterEach(() => vi.useRealTimers())
const settle = () => vi.advanceTimersByTimeAsync(0)

it('is said at once where there is a line', async () => {
  sayOfHand('ann', { kind: 'tired' })
  await settle()
  expect(put).toHaveBeenCalledOnce()
  expect(put.mock.calls[0]?.[1]).toMatchObject({ body: { kind: 'tired' } })
})

it('waits for a line, and stops the ladders of this device meanwhile', async () => {
  put.mockRejectedValue(noLine)
  sayOfHand('ann', { kind: 'hurts' })
  await settle()
  expect(hurtsHere('ann')).toBe(true)
  expect(hurtsHere('ben')).toBe(false)
  put.mockReset().mockResolvedValue(undefined)
  await vi.advanceTimersByTimeAsync(15_000)
  expect(put).toHaveBeenCalledOnce()
  expect(hurtsHere('ann'), 'until an instructor says so').toBe(true)
})

it('is said of nobody else on the same device', async () => {
  put.mockRejectedValueOnce(noLine)
  sayOfHand('ann', { kind: 'tired' })
  await settle()
  await sayWhatWaits('ben')
  expect(put).toHaveBeenCalledOnce()
  await sayWhatWaits('ann')
  expect(put).toHaveBeenCalledTimes(2)
})

it('keeps its time when it is said in other words, and is dropped once refused', async () => {
  put.mockRejectedValueOnce(noLine)
  const id = sayOfHand('ann', { kind: 'hurts' })
  await settle()
  put.mockRejectedValueOnce(new Problem('No', '', 422))
  vi.setSystemTime(Date.now() + 60_000)
  sayOfHand('ann', { kind: 'hurts', aches: ['wrist'] }, id)
  await settle()
  const [first, second] = put.mock.calls.map(([, call]) => call)
  expect(second.params).toEqual(first.params)
  expect(hurtsHere('ann')).toBe(false)
})

it('is taken back where it was pressed by mistake, said already or not', async () => {
  const said = sayOfHand('ann', { kind: 'hurts' })
  await unsay('ann', said)
  expect(put.mock.invocationCallOrder[0]).toBeLessThan(remove.mock.invocationCallOrder[0]!)

  put.mockRejectedValue(noLine)
  remove.mockRejectedValue(noLine)
  const waits = sayOfHand('ann', { kind: 'hurts' })
  await unsay('ann', waits)
  expect(hurtsHere('ann')).toBe(false)
  await expect(unsay('ann', said)).rejects.toBe(noLine)
})

const report = (id: string, at: string, more = {}) => ({
  id,
  at,
  report: { kind: 'hurts' as const },
  ...more,
})
const record = (hurts: boolean, ...reports: ReturnType<typeof report>[]) => ({
  hurts,
  reports,
  weeks: [],
  places: [],
})

it('holds until the studio tells that it was cleared, however often it is asked meanwhile', async () => {
  const id = sayOfHand('eve', { kind: 'hurts' })
  await settle()
  const at = painOf('eve')?.at ?? ''
  painTold('eve', record(false)) // what was kept from before
  painTold('eve', record(false, report('older', '2020-01-01T00:00:00Z', { clearedAt: at })))
  expect(painOf('eve')?.id).toBe(id)
  painTold('eve', record(true, report(id, at)))
  expect(painOf('eve')?.id).toBe(id)
  painTold('eve', record(false, report(id, at, { clearedAt: at })))
  expect(hurtsHere('eve')).toBe(false)
})

it('is known of what was said on another device, and of one that is long over', () => {
  painTold('flo', record(true, report('there', '2026-01-02T00:00:00Z')))
  expect(painOf('flo')).toEqual({ id: 'there', at: '2026-01-02T00:00:00Z' })
  painTold('flo', record(false, report('later', '2026-02-01T00:00:00Z', { withdrawnAt: 'then' })))
  expect(hurtsHere('flo')).toBe(false)
})
