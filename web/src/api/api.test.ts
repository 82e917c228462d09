import { describe, expect, it } from 'vitest'

import { isChanged, Problem } from './client'
import { newId } from './ids'
import { everything, usePages } from './pages'

/** A list of n numbers in pages of three. */
function pages(n: number) {
  const asked: (string | undefined)[] = []
  const ask = async (after?: string) => {
    asked.push(after)
    const from = Number(after ?? 0)
    const items = Array.from({ length: Math.min(3, n - from) }, (_, i) => from + i)
    const next = from + 3 < n ? String(from + 3) : undefined
    return { items, next }
  }
  return { ask, asked }
}

describe('lists', () => {
  it('come page after page, without a gap or a double', async () => {
    const { ask, asked } = pages(8)
    expect(await everything(ask)).toEqual([0, 1, 2, 3, 4, 5, 6, 7])
    expect(asked).toEqual([undefined, '3', '6'])
    expect(await everything(pages(0).ask)).toEqual([])
  })
  it('end somewhere, however long they are', async () => {
    const endless = async () => ({ items: Array.from({ length: 900 }, () => 1), next: 'on' })
    expect((await everything(endless)).length).toBeLessThan(6000)
  })
  it('are shown a page at a time', async () => {
    const { items, more, first, further } = usePages(pages(5).ask)
    await first()
    expect([items.value, more.value]).toEqual([[0, 1, 2], true])
    await further()
    expect([items.value, more.value]).toEqual([[0, 1, 2, 3, 4], false])
    await first()
    expect(items.value).toEqual([0, 1, 2])
  })
})

describe('ids', () => {
  it('are random ones as RFC 9562 writes them, each another', () => {
    const ids = Array.from({ length: 100 }, newId)
    for (const id of ids)
      expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/)
    expect(new Set(ids).size).toBe(100)
  })
})

describe('a change that was made on what is no longer so', () => {
  it('is told from all else that goes wrong', () => {
    expect(isChanged(new Problem('', '', 412))).toBe(true)
    expect(isChanged(new Problem('', '', 409))).toBe(false)
    expect(isChanged(new Error('412'))).toBe(false)
  })
})
