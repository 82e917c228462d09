import { openDB, type DBSchema, type IDBPDatabase } from 'idb'

import type { Film } from './camera'
import type { Struck } from './struck'

/** A recording that the server does not have yet. */
export interface Unsent {
  id: string
  assignmentId: string
  /** Who has played it; older recordings do not know. */
  personId?: string
  /** What the list calls it; older recordings do not know. */
  drillName?: string
  bpm: number
  /** Of the rung that is played; older recordings do not know it. */
  notesPerBeat?: number
  /** Of the drill that is played; older recordings do not know it. */
  version?: number
  /** Where on the neck it is played, where that is not the drill's own position. */
  position?: number
  /** Played at a tempo of one's own choice: it counts for nothing. */
  aside?: 'ownTempo' | 'tryOut' | 'tapped'
  /** What it was played on; else the microphone has heard it. */
  source?: 'midi' | 'key'
  /** The hands while it was played. */
  film?: Film
  /** What was struck on it. */
  struck?: Struck[]
  /** By how many bpm each pass was to be faster than the one before. */
  rise?: number
  /** When the first beat is clicked in it, in s, where the delay of the device was known. */
  clickAt?: number
  rate: number
  startedAt: string
  frames: number
  /** Played to its end, so that it is handed in by itself; else its player decides. */
  whole?: boolean
  /** Why the server does not take it. */
  refused?: { title: string; detail: string }
  /** Thrown away, but to be had back for a while. */
  discardedAt?: string
  /** In memory alone, at least in part: there was no room for it. */
  unkept?: boolean
}

interface Schema extends DBSchema {
  takes: { key: string; value: Unsent }
  chunks: { key: [string, number]; value: Float32Array }
}

/** Recordings for which there was no room, as long as the page is open. */
const inMemory = new Map<string, UnsentTake>()

/** A page with a recording that is nowhere else asks before it is left. */
function askBeforeLeaving(event: BeforeUnloadEvent) {
  event.preventDefault()
}
function holdInMemory(made: UnsentTake) {
  inMemory.set(made.take.id, made)
  window.addEventListener('beforeunload', askBeforeLeaving)
}
function letGo(id: string) {
  if (inMemory.delete(id) && inMemory.size === 0)
    window.removeEventListener('beforeunload', askBeforeLeaving)
}

let opened: Promise<IDBPDatabase<Schema>> | undefined

function open(): Promise<IDBPDatabase<Schema>> {
  opened ??= openDB<Schema>('manudrill', 1, {
    upgrade(db) {
      db.createObjectStore('takes', { keyPath: 'id' })
      db.createObjectStore('chunks')
    },
    terminated: () => (opened = undefined),
  })
  opened.catch(() => (opened = undefined)) // asked for again, it may be there
  return opened
}

/** So many frames at the least are kept in one go: a store takes few long pieces more easily than many short ones. */
const piece = 8192

/**
 * Keeps a recording in the browser while it is made, piece by piece, so that
 * neither a reload nor a lost connection loses it. Where the device has no room,
 * the rest is kept in memory, and that is told at once.
 */
export class UnsentTake {
  private count = 0
  private gathered: Float32Array[] = []
  private last: Promise<unknown>
  private rest: Float32Array[] = []

  constructor(
    readonly take: Unsent,
    private readonly onNoRoom: () => void,
  ) {
    this.last = this.keep(async () => (await open()).put('takes', { ...take }))
  }

  append(samples: Float32Array): void {
    this.gathered.push(samples)
    if (this.gathered.reduce((n, c) => n + c.length, 0) >= piece) this.keepGathered()
  }

  /** Keeps what was struck until now. */
  strike(struck: Struck[]): void {
    this.take.struck = [...struck]
    this.keepTake()
  }

  /** Keeps how the hands looked. */
  film(film: Film): void {
    this.take.film = film
    this.keepTake()
  }

  private keepTake(): void {
    const take = { ...this.take }
    this.last = this.last.then(() =>
      this.keep(async () => {
        const tx = (await open()).transaction('takes', 'readwrite')
        await putTake(tx.store, take)
        await tx.done
      }),
    )
  }

  private keepGathered(): void {
    if (this.gathered.length === 0) return
    const samples = new Float32Array(this.gathered.reduce((n, c) => n + c.length, 0))
    let at = 0
    for (const chunk of this.gathered) {
      samples.set(chunk, at)
      at += chunk.length
    }
    this.gathered = []
    const n = this.count++
    this.take.frames += samples.length
    const take = { ...this.take }
    this.last = this.last.then(async () => {
      if (this.take.unkept) return this.rest.push(samples)
      await this.keep(
        async () => {
          const tx = (await open()).transaction(['takes', 'chunks'], 'readwrite')
          await Promise.all([
            tx.objectStore('chunks').put(samples, [take.id, n]),
            putTake(tx.objectStore('takes'), take),
            tx.done,
          ])
        },
        () => this.rest.push(samples),
      )
    })
  }

  /** Tries to keep something; what cannot be is told once. */
  private async keep(put: () => Promise<unknown>, otherwise?: () => void): Promise<void> {
    try {
      await put()
    } catch (thrown) {
      console.error('a recording cannot be kept on this device', thrown)
      otherwise?.()
      if (this.take.unkept) return
      this.take.unkept = true
      holdInMemory(this)
      this.onNoRoom()
    }
  }

  /** Resolves when all of it is kept, or in memory. */
  async kept(): Promise<void> {
    this.keepGathered()
    await this.last
  }

  /** All of the sound, wherever it is. */
  async sound(): Promise<Float32Array[]> {
    await this.kept()
    const stored = this.count === this.rest.length ? [] : await storedSound(this.take.id)
    return [...stored, ...this.rest]
  }
}

/**
 * Keeps what the recording has come to. What was said of it meanwhile stays: that it be
 * handed in, or thrown away.
 */
async function putTake(store: TakeStore, take: Unsent): Promise<unknown> {
  return store.put({ ...(await store.get(take.id)), ...take })
}
interface TakeStore {
  get: (id: string) => Promise<Unsent | undefined>
  put: (take: Unsent) => Promise<unknown>
}

function chunksOf(id: string): IDBKeyRange {
  return IDBKeyRange.bound([id, 0], [id, Infinity])
}

/** All recordings that have not been handed in, oldest first, those thrown away too. */
export async function unsentTakes(): Promise<Unsent[]> {
  const held = [...inMemory.values()].map((made) => made.take)
  const stored = await storedTakes().catch((thrown) => {
    if (held.length === 0) throw thrown
    return []
  })
  const all = [...stored.filter((t) => !inMemory.has(t.id)), ...held]
  return all
    .filter((t) => t.frames > 0 || t.struck?.length)
    .sort((a, b) => a.startedAt.localeCompare(b.startedAt))
}

async function storedTakes(): Promise<Unsent[]> {
  return (await open()).getAll('takes')
}

async function storedSound(id: string): Promise<Float32Array[]> {
  return (await open()).getAll('chunks', chunksOf(id))
}

export function unsentSound(id: string): Promise<Float32Array[]> {
  return inMemory.get(id)?.sound() ?? storedSound(id)
}

/** Changes what is known of a recording, where it is still there. */
export async function changeUnsent(id: string, change: Partial<Unsent>): Promise<void> {
  const held = inMemory.get(id)
  if (held) return void Object.assign(held.take, change)
  const tx = (await open()).transaction('takes', 'readwrite')
  const take = await tx.store.get(id)
  if (take) await tx.store.put({ ...take, ...change })
  await tx.done
}

/** Forgets a recording for good. */
export async function forgetUnsent(id: string): Promise<void> {
  const held = inMemory.has(id)
  letGo(id)
  const clear = async () => {
    const tx = (await open()).transaction(['takes', 'chunks'], 'readwrite')
    await Promise.all([
      tx.objectStore('takes').delete(id),
      tx.objectStore('chunks').delete(chunksOf(id)),
      tx.done,
    ])
  }
  // Of what was held in memory a part may lie in the store, which perhaps cannot be opened.
  await (held ? clear().catch(() => undefined) : clear())
}
