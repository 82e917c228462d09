import { openDB, type DBSchema, type IDBPDatabase } from 'idb'

/** A recording that the server does not have yet. */
export interface Unsent {
  id: string
  assignmentId: string
  bpm: number
  /** Of the drill that is played; older recordings do not know it. */
  version?: number
  rate: number
  startedAt: string
  frames: number
}

interface Schema extends DBSchema {
  takes: { key: string; value: Unsent }
  chunks: { key: [string, number]; value: Float32Array }
}

let opened: Promise<IDBPDatabase<Schema>> | undefined

function open(): Promise<IDBPDatabase<Schema>> {
  opened ??= openDB<Schema>('manudrill', 1, {
    upgrade(db) {
      db.createObjectStore('takes', { keyPath: 'id' })
      db.createObjectStore('chunks')
    },
  })
  return opened
}

/**
 * Keeps a recording in the browser while it is made, chunk by chunk, so that
 * neither a reload nor a lost connection loses it.
 */
export class UnsentTake {
  private count = 0
  private last: Promise<unknown>

  constructor(readonly take: Unsent) {
    this.last = open().then((db) => db.put('takes', { ...take }))
  }

  append(samples: Float32Array): void {
    const n = this.count++
    this.take.frames += samples.length
    const take = { ...this.take }
    this.last = this.last.then(async () => {
      const tx = (await open()).transaction(['takes', 'chunks'], 'readwrite')
      await Promise.all([
        tx.objectStore('chunks').put(samples, [take.id, n]),
        tx.objectStore('takes').put(take),
        tx.done,
      ])
    })
  }

  /** Resolves when all chunks are kept. */
  async kept(): Promise<void> {
    await this.last
  }
}

function chunksOf(id: string): IDBKeyRange {
  return IDBKeyRange.bound([id, 0], [id, Infinity])
}

/** The recordings of an assignment that have not been handed in, oldest first. */
export async function unsentTakes(assignmentId: string): Promise<Unsent[]> {
  const all = await (await open()).getAll('takes')
  return all
    .filter((t) => t.assignmentId === assignmentId && t.frames > 0)
    .sort((a, b) => a.startedAt.localeCompare(b.startedAt))
}

export async function unsentSound(id: string): Promise<Float32Array[]> {
  return (await open()).getAll('chunks', chunksOf(id))
}

export async function discardUnsent(id: string): Promise<void> {
  const tx = (await open()).transaction(['takes', 'chunks'], 'readwrite')
  await Promise.all([
    tx.objectStore('takes').delete(id),
    tx.objectStore('chunks').delete(chunksOf(id)),
    tx.done,
  ])
}
