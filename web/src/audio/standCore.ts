import type { Chart, Drill, Rung, SavedRoutine, Stand } from '../api/client'
import type { EarWorker, FromEar } from './ear'

/** What a stand is at. */
export type Phase = 'waiting' | 'playing' | 'pausing' | 'resting' | 'reading' | 'over' | 'hurt'

/** How far a run of a routine has come, as the core keeps it. */
export interface RunState {
  phase: Phase
  item: number
  takes: number
  clean: boolean[] | null
  since: number
  ends: number
  held: Phase | ''
  at: number
  why: '' | 'unheard' | 'broken'
  idle: number
  tired: boolean
  from: number
  once: boolean
}

/** What can happen to a run. */
export interface RunEvent {
  key:
    | 'tick'
    | 'ended'
    | 'failed'
    | 'start'
    | 'hold'
    | 'next'
    | 'repeat'
    | 'skip'
    | 'back'
    | 'tired'
    | 'hurts'
  /** In s, on a clock that only runs on. */
  at: number
  heard?: boolean
  clean?: boolean
  /** It was to warm up, and is none of the item's takes. */
  aside?: boolean
  /** In s, that the student wants between takes. */
  pause?: number
}

/** What the stand tells of a run at a moment. */
export interface Told {
  state: RunState
  left: string
  share: number
  /** The next drill to be played, from the item on; −1 for none. */
  then: number
}

/** A search for somebody's tempo, as the core keeps it. */
export interface Search {
  bpm: number
  clean: number[]
  unclean: number[]
}

/** The next short take of a search, or what it has come to. */
export interface Seeking {
  search: Search
  next?: { chart: Chart; beatsPerPass: number }
  rung: Rung
  found?: { bpm: number; low: number; high: number; takes: number; start: Rung; text: string }
  /** Something was found. */
  sure: boolean
}

/** The delay of a device, or why none was found. */
export interface Delayed {
  seconds: number
  spreadMs: number
  count: number
  of: number
  sure: boolean
  text: string
}

/** What is asked of the core, and what it answers. */
interface Questions {
  lay: {
    asks: { drill: Drill; guitar: Stand['guitar']; hand: Stand['hand']; rung: Rung }
    answers: { chart: Chart; beatsPerPass: number }
  }
  hear: {
    asks: { drill: Drill; guitar: Stand['guitar']; hand: Stand['hand']; rung: Rung; click: boolean }
    answers: { rate: number; seconds: number; samples: string }
  }
  seek: {
    asks: {
      drill: Drill
      guitar: Stand['guitar']
      hand: Stand['hand']
      ladder: Stand['climbing']['ladder']
      notesPerBeat: number
      /** In bpm, where the search begins. */
      from: number
      search?: Search
      /** What has come of the last take. */
      take?: 'clean' | 'unclean' | 'unheard'
      /** That it has lasted, with all that belongs to it. */
      seconds?: number
      /** Beats counted in. */
      barBeats: number
    }
    answers: Seeking
  }
  delay: {
    asks: { rate: number; clicks: number[]; played: boolean }
    answers: Delayed
  }
  step: {
    asks: { routine: SavedRoutine['routine']; state: Partial<RunState>; event: RunEvent }
    answers: Told
  }
}

/** Asks the core of this device what the stand is to do. */
export class StandCore {
  private asked = 0
  private gone?: Error
  private readonly waiting = new Map<
    number,
    { answer: (told: unknown) => void; fail: (why: Error) => void }
  >()

  constructor(private readonly worker: EarWorker) {
    worker.addEventListener('message', ({ data }) => this.told(data))
    worker.addEventListener('error', (event) => this.failAll(event.message))
  }

  ask<K extends keyof Questions>(
    what: K,
    asks: Questions[K]['asks'],
    samples?: Int32Array,
  ): Promise<Questions[K]['answers']> {
    if (this.gone) return Promise.reject(this.gone)
    const id = ++this.asked
    return new Promise((resolve, reject) => {
      this.waiting.set(id, { answer: resolve as (told: unknown) => void, fail: reject })
      // As JSON: what is watched cannot be sent.
      const question = JSON.stringify(asks)
      this.worker.postMessage({ kind: 'ask', id, what, question, samples })
    })
  }

  private told(data: FromEar) {
    if (data.kind === 'gone') return this.failAll(data.why)
    if (data.kind !== 'answer') return
    const waits = this.waiting.get(data.id)
    this.waiting.delete(data.id)
    if (data.error === undefined) waits?.answer(data.answer)
    else waits?.fail(new Error(data.error))
  }

  private failAll(why: string) {
    this.gone = new Error(why)
    for (const { fail } of this.waiting.values()) fail(this.gone)
    this.waiting.clear()
  }
}
