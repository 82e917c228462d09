import { describe, expect, it } from 'vitest'

import { draftKey, drafts, dropDraft, newDraftId } from './drafts'

/** A store as the browser has one. */
function store(entries: Record<string, string>): Storage {
  const kept = new Map(Object.entries(entries))
  return {
    get length() {
      return kept.size
    },
    key: (i) => [...kept.keys()][i] ?? null,
    getItem: (k) => kept.get(k) ?? null,
    setItem: (k, v) => void kept.set(k, v),
    removeItem: (k) => void kept.delete(k),
    clear: () => kept.clear(),
  }
}
const kept = (name: string) =>
  JSON.stringify({ past: [], now: JSON.stringify({ drill: { name } }), future: [] })

describe('drafts', () => {
  it('are told the latest first, and what is none is not', () => {
    const s = store({
      [draftKey(newDraftId(1000))]: kept('earlier'),
      [draftKey(newDraftId(2_000_000_000_000))]: kept('later'),
      'manudrill bench 7': kept('no draft'),
      [draftKey('broken')]: '{',
    })
    expect(drafts(s).map((d) => d.name)).toEqual(['later', 'earlier'])
  })
  it('holds the one from before drafts had names', () => {
    const s = store({ 'manudrill bench new': kept('of old') })
    const [old] = drafts(s)
    expect(old?.name).toBe('of old')
    expect(old?.id).not.toBe('')
    expect(drafts(s)).toHaveLength(1)
  })
  it('are thrown away, and had back', () => {
    const id = newDraftId(5)
    const s = store({ [draftKey(id)]: kept('mine') })
    const back = dropDraft(id, s)
    expect(drafts(s)).toEqual([])
    back()
    expect(drafts(s)).toEqual([{ id, name: 'mine' }])
  })
  it('have ids of their own, even in one moment', () => {
    const ids = new Set(Array.from({ length: 50 }, () => newDraftId(7)))
    expect(ids.size).toBeGreaterThan(45)
  })
})
