import { computed, ref, watch, type Ref } from 'vue'

/** Everything that was ever set, as text, so that it can be kept by the browser. */
export interface History {
  past: string[]
  now: string
  future: string[]
  /** What was last saved or opened, from which the steps started. */
  base?: string
  /** Which revision that was. */
  revision?: number
}

/**
 * A value as text with its fields in order and without empty ones: what two
 * values have in common when they say the same.
 */
export function meaning(value: unknown): string {
  return JSON.stringify(value, (_, v: unknown) => {
    if (v === null || typeof v !== 'object' || Array.isArray(v)) return v
    return Object.fromEntries(
      Object.entries(v)
        .filter(([, part]) => !(Array.isArray(part) && part.length === 0))
        .sort(([a], [b]) => (a < b ? -1 : 1)),
    )
  })
}

/** The most steps kept; the oldest go first. */
const longest = 400
/** Changes that follow each other faster are one step; a drag is one, however long it is held. */
const pause = 400

/** Goes one step back; the same history where there is none. */
export function undone(h: History): History {
  const before = h.past.at(-1)
  if (before === undefined) return h
  return { ...h, past: h.past.slice(0, -1), now: before, future: [h.now, ...h.future] }
}

/** Goes one step forward again; the same history where there is none. */
export function redone(h: History): History {
  const [next, ...future] = h.future
  if (next === undefined) return h
  return { ...h, past: [...h.past, h.now], now: next, future }
}

/** Adds a step; what was undone before is given up. */
export function stepped(h: History, now: string): History {
  if (now === h.now) return h
  return { ...h, past: [...h.past, h.now].slice(-longest), now, future: [] }
}

/**
 * The history once something else is saved. One that rests on an older revision
 * and has changes of its own keeps it: whoever saves it is told what has changed.
 */
export function rebased(h: History, text: string, revision: number, isDraft: boolean): History {
  const same = (a: string, b: string) => meaning(JSON.parse(a)) === meaning(JSON.parse(b))
  if (same(h.now, text)) return { ...h, base: text, revision }
  if (h.base === undefined ? !isDraft : same(h.now, h.base))
    return { past: [], now: text, future: [], base: text, revision }
  return h.base === undefined || same(h.base, text) ? { ...h, base: text, revision } : h
}

/**
 * A value whose steps can be undone and redone, all the way, and which outlives
 * a reload under a key of the browser's storage.
 */
export function useHistory<T>(begunAs: string, fresh: () => T) {
  let key = begunAs
  const kept = localStorage.getItem(key)
  const history = ref<History>(
    kept ? (JSON.parse(kept) as History) : { past: [], now: JSON.stringify(fresh()), future: [] },
  )
  const value = ref(JSON.parse(history.value.now)) as Ref<T>
  let timer: ReturnType<typeof setTimeout> | undefined

  /** Keeps the history in the browser; where its store is full, the oldest steps give way. */
  function keep() {
    for (;;) {
      try {
        localStorage.setItem(key, JSON.stringify(history.value))
        return
      } catch {
        const { past, future } = history.value
        if (past.length + future.length === 0) return // not even one fits
        const half = past.slice(Math.ceil(past.length / 2))
        history.value = { ...history.value, past: half, future: past.length ? future : [] }
      }
    }
  }
  /** Makes a step of what has changed since the last one. */
  function settle() {
    clearTimeout(timer)
    timer = undefined
    const after = stepped(history.value, JSON.stringify(value.value))
    if (after === history.value) return
    history.value = after
    keep()
  }
  let held = false
  let due = false
  function settleUnheld() {
    due = held
    if (!held) settle()
  }
  const pointer = (event: Event) => {
    held = event.type === 'pointerdown'
    if (due) settleUnheld()
  }
  const pointers = ['pointerdown', 'pointerup', 'pointercancel']
  for (const type of pointers) addEventListener(type, pointer, { capture: true })
  watch(
    value,
    () => {
      clearTimeout(timer)
      timer = setTimeout(settleUnheld, pause)
    },
    { deep: true },
  )
  function go(step: (h: History) => History) {
    settle()
    history.value = step(history.value)
    value.value = JSON.parse(history.value.now) as T
    keep()
  }
  // What is changed last must not be lost on a reload within the pause.
  addEventListener('pagehide', settle)
  function listenNoMore() {
    removeEventListener('pagehide', settle)
    for (const type of pointers) removeEventListener(type, pointer, { capture: true })
  }

  return {
    value,
    canUndo: computed(
      () => history.value.past.length > 0 || JSON.stringify(value.value) !== history.value.now,
    ),
    canRedo: computed(() => history.value.future.length > 0),
    undo: () => go(undone),
    redo: () => go(redone),
    /** Makes a step of what has changed, so that the next change is one of its own. */
    settle,
    /**
     * Tells what is saved now. A draft without changes of its own gives way to
     * it; one that has any stays, with all its steps, and goes on resting on what
     * it was made from.
     */
    rebase(saved: T, revision: number) {
      settle()
      history.value = rebased(history.value, JSON.stringify(saved), revision, !!kept)
      if (history.value.now !== JSON.stringify(value.value))
        value.value = JSON.parse(history.value.now) as T
      keep()
    },
    /** Tells what of it is saved now; what was set meanwhile rests on that. */
    saved(as: T, revision: number) {
      settle()
      history.value = { ...history.value, base: JSON.stringify(as), revision }
      keep()
    },
    /** Goes on, with all its steps, under another key. */
    moveTo(other: string) {
      localStorage.removeItem(key)
      key = other
      keep()
    },
    /** The revision that what lies here was made from. */
    revision: () => history.value.revision,
    /** Ends it; what is not saved stays in the browser. */
    leave() {
      settle()
      listenNoMore()
    },
  }
}

/**
 * Puts a value into a history that is not open now, as its newest step, so that
 * what lay there before can be had back by undoing.
 */
export function putInto(key: string, value: unknown): void {
  const text = JSON.stringify(value)
  const kept = localStorage.getItem(key)
  const history: History = kept
    ? stepped(JSON.parse(kept) as History, text)
    : { past: [], now: text, future: [] }
  localStorage.setItem(key, JSON.stringify(history))
}
