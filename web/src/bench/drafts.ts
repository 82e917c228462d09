import { putInto, type History } from './history'

/** A new drill that was begun and is not saved yet, as the browser keeps it. */
export interface Draft {
  id: string
  name: string
}

const prefix = 'manudrill bench new'

/** Under which key the browser keeps a draft. */
export const draftKey = (id: string) => `${prefix} ${id}`

/** An id for a draft; a later one sorts behind an earlier one. */
export function newDraftId(now = Date.now()): string {
  return `${now.toString(36).padStart(9, '0')}${Math.random().toString(36).slice(2, 6)}`
}

/** Puts a drill into a draft of its own, to be opened. */
export function putDraft(file: unknown): string {
  const id = newDraftId()
  putInto(draftKey(id), file)
  return id
}

/** The drafts there are, the latest first. */
export function drafts(store: Storage = localStorage): Draft[] {
  named(store)
  const found: Draft[] = []
  for (let i = 0; i < store.length; i++) {
    const key = store.key(i)
    if (!key?.startsWith(draftKey(''))) continue
    const name = nameOf(store.getItem(key) ?? '')
    if (name !== undefined) found.push({ id: key.slice(draftKey('').length), name })
  }
  return found.sort((a, b) => (a.id < b.id ? 1 : -1))
}

/** The one draft there was before they had names of their own gets one. */
function named(store: Storage) {
  const kept = store.getItem(prefix)
  if (kept === null) return
  store.setItem(draftKey(newDraftId(0)), kept)
  store.removeItem(prefix)
}

/** What a kept history calls its drill; undefined for what is none. */
function nameOf(kept: string): string | undefined {
  try {
    const { now } = JSON.parse(kept) as History
    return (JSON.parse(now) as { drill: { name: string } }).drill.name
  } catch {
    return undefined
  }
}

/** Throws a draft away; what it returns puts it back. */
export function dropDraft(id: string, store: Storage = localStorage): () => void {
  const kept = store.getItem(draftKey(id))
  store.removeItem(draftKey(id))
  return () => {
    if (kept !== null) store.setItem(draftKey(id), kept)
  }
}
