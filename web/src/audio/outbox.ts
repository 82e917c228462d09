import { computed, ref, shallowRef } from 'vue'

import { Problem, problemOf, type Take } from '../api/client'
import { getTake, handIn, handInFilm } from '../api/takes'
import type { Film } from './camera'
import { changeUnsent, forgetUnsent, unsentSound, unsentTakes, type Unsent } from './unsent'
import { encodeMidi } from './struck'
import { encodeWav } from './wav'

/** How long after each failure it is tried again, in ms; the last one stays. */
const waits = [2_000, 5_000, 15_000, 60_000]
/** How long what was thrown away can be had back, in ms. */
const keepDiscarded = 24 * 60 * 60 * 1000

/** What the box needs of the rest of the program; tests bring their own. */
export interface Parts {
  takes: () => Promise<Unsent[]>
  sound: (id: string) => Promise<Float32Array[]>
  change: (id: string, change: Partial<Unsent>) => Promise<void>
  forget: (id: string) => Promise<void>
  send: (take: Unsent, file: Blob) => Promise<Take>
  sendFilm: (takeId: string, film: Film) => Promise<void>
  /** One that the server has. */
  taken: (id: string) => Promise<Take>
  now: () => number
  /** Runs something once no other window is at it. */
  alone: (action: () => Promise<void>) => Promise<void>
  later: (action: () => void, ms: number) => void
}

/**
 * Whether the server will never take a recording as it is: what it refuses, but for
 * want of a sign-in, of time or of quiet.
 */
export function isFinal(p: Problem): boolean {
  return p.status >= 400 && p.status < 500 && ![401, 403, 408, 425, 429].includes(p.status)
}

/**
 * Hands recordings in by itself, one after the other, in the background: played to
 * their end they go at once, and again and again until the server has them. Nothing
 * waits for it. What the server has is forgotten here, and nothing else is.
 */
export function useOutbox(parts: Parts) {
  const all = shallowRef<Unsent[]>([])
  const sending = ref<string>()
  const fault = shallowRef<Problem>()
  const heard = new Map<string, (take: Take) => void>()
  const who = ref<string>()
  /** Those of old that the server says are somebody else's. */
  const others = shallowRef(new Set<string>())
  let failures = 0
  let running = false
  /** It was called while under way, perhaps too late for what it was called for. */
  let anew = false
  /** How often a further try was planned; only the last one counts. */
  let plans = 0

  const mine = (t: Unsent) =>
    t.personId === undefined ? !others.value.has(t.id) : t.personId === who.value
  /** Those of whoever is here: the others are theirs to hear and to decide on. */
  const kept = computed(() => all.value.filter((t) => !t.discardedAt && mine(t)))
  /** Those that go by themselves. */
  const waiting = computed(() => kept.value.filter((t) => t.whole && !t.refused))

  async function look() {
    all.value = await parts.takes()
  }

  /** Sends what can be sent. Called while that is under way, it looks once more after it. */
  async function run(): Promise<void> {
    anew = running
    if (running) return
    running = true
    try {
      await parts.alone(async () => {
        const awaited = [...heard.keys()]
        await look()
        await tellOfOthers(awaited)
        for (let t = waiting.value[0]; t; t = waiting.value[0]) {
          if (!(await sendOne(t))) return
          await look()
        }
        succeeded()
      })
    } catch (thrown) {
      fault.value = problemOf(thrown) // the device's store, which may come back
      again()
    } finally {
      running = false
    }
    if (anew) await run()
  }

  /** Tells of those that another window has handed in: they are on this device no more. */
  async function tellOfOthers(awaited: string[]) {
    for (const id of awaited) {
      if (all.value.some((t) => t.id === id)) continue
      try {
        heard.get(id)?.(await parts.taken(id))
      } catch (thrown) {
        const { status } = problemOf(thrown)
        if (status < 400 || status >= 500) throw thrown // else it is gone, or not theirs to see
      }
      heard.delete(id)
    }
  }

  /** Sends one; whether to go on with the next. */
  async function sendOne(t: Unsent): Promise<boolean> {
    sending.value = t.id
    try {
      const take = await parts.send(t, await asFile(t, parts.sound))
      heard.get(t.id)?.(take)
      heard.delete(t.id)
      if (t.film) await parts.sendFilm(t.id, t.film) // what refuses it says that the take is there
      await parts.forget(t.id)
      succeeded()
      return true
    } catch (thrown) {
      const p = problemOf(thrown)
      if (isFinal(p)) {
        await parts.change(t.id, { refused: { title: p.title, detail: p.detail } })
        return true
      }
      if (p.status === 403) {
        others.value = new Set([...others.value, t.id])
        return true
      }
      fault.value = p
      again()
      return false
    } finally {
      sending.value = undefined
    }
  }

  function succeeded() {
    failures = 0
    fault.value = undefined
  }

  /** Tries once more later, in place of the try that was planned before. */
  function again() {
    const plan = ++plans
    const wait = waits[Math.min(failures++, waits.length - 1)]!
    parts.later(() => void (plan === plans && run()), wait)
  }

  return {
    all: kept,
    waiting,
    sending,
    fault,
    look,
    run,
    /** Says who is here: recordings of others wait for them. */
    for: (personId: string | undefined) => {
      who.value = personId
      others.value = new Set()
      return run()
    },
    /** Hands a recording in, also one that was refused or broken off; tells when it is there. */
    async handIn(id: string, then?: (take: Take) => void) {
      if (then) heard.set(id, then)
      await parts.change(id, { whole: true, refused: undefined })
      await look()
      void run()
    },
    /** Throws a recording away; it can be had back for a day. */
    async discard(id: string) {
      await parts.change(id, { discardedAt: new Date(parts.now()).toISOString() })
      await look()
    },
    async recover(id: string) {
      await parts.change(id, { discardedAt: undefined })
      await look()
    },
    /** Forgets what was thrown away long ago. */
    async tidy() {
      for (const t of await parts.takes())
        if (t.discardedAt && parts.now() - Date.parse(t.discardedAt) > keepDiscarded)
          await parts.forget(t.id)
      await look()
    },
  }
}

/** A recording as a file: its sound, or what was struck on an instrument. */
async function asFile(t: Unsent, sound: Parts['sound']): Promise<Blob> {
  return t.struck ? encodeMidi(t.struck) : encodeWav(await sound(t.id), t.rate)
}

/** A recording as a file, to be heard or saved. */
export const fileOf = (t: Unsent): Promise<Blob> => asFile(t, unsentSound)

/**
 * Lets one window at a time do it, where the browser can tell them apart. Each has its turn:
 * one that gave up while another is at it would not know that its recordings wait.
 */
async function alone(action: () => Promise<void>): Promise<void> {
  if (!('locks' in navigator)) return action()
  await navigator.locks.request('manudrill outbox', action)
}

/** The box of this device. */
export const outbox = useOutbox({
  takes: unsentTakes,
  sound: unsentSound,
  change: changeUnsent,
  forget: forgetUnsent,
  send: (t, file) =>
    handIn({
      assignmentId: t.assignmentId,
      takeId: t.id,
      source: t.source ?? 'microphone',
      bpm: t.bpm,
      notesPerBeat: t.notesPerBeat,
      version: t.version,
      position: t.position,
      aside: t.aside === 'tapped' ? undefined : t.aside, // the source says it
      clickAt: t.clickAt,
      rise: t.rise,
      recordedAt: t.startedAt,
      file,
    }),
  sendFilm: handInFilm,
  taken: getTake,
  now: () => Date.now(),
  alone,
  later: (action, ms) => setTimeout(action, ms),
})
