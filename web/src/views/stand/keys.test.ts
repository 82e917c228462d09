import { expect, it, vi } from 'vitest'

const told = vi.fn()
vi.mock('../../api/hand', () => ({
  sayOfHand: (...what: unknown[]) => told(...what),
  handOf: vi.fn(async (id: string) => {
    if (id === 'unreachable') throw new Error('no line')
    return { places: ['wrist'] }
  }),
}))
vi.stubGlobal('localStorage', undefined)
const { useHand } = await import('./keys')

it('stops when it hurts, and asks where, with a line or without', async () => {
  const stop = vi.fn(async () => undefined)
  const hand = useHand(() => 'somebody', stop)
  await hand.hurts()
  expect(stop).toHaveBeenCalledOnce()
  expect(hand.hurting.value).toBe(true)
  expect(hand.places.value).toEqual(['wrist'])
  const alone = useHand(() => 'unreachable', stop)
  await alone.hurts()
  expect(alone.hurting.value).toBe(true)
  expect(alone.places.value).toEqual([])
})

it('tells that the hand is tired, and stops', async () => {
  const stop = vi.fn()
  await useHand(() => 'somebody', stop).tired()
  expect(told).toHaveBeenCalledWith('somebody', { kind: 'tired' })
  expect(stop).toHaveBeenCalledOnce()
})
