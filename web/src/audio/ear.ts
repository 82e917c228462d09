import type {
  Advice,
  Analysis,
  Climbing,
  Chart,
  MeasuredSummary,
  MeasuredTake,
  Stand,
} from '../api/client'
import type { Struck } from './struck'
import { sampleOf } from './wav'

/** What is to be played, and what the decision on it rests on. */
export interface Task {
  /** Samples a second. */
  rate: number
  chart: Chart
  rung: { bpm: number; notesPerBeat: number }
  climbing: Climbing
  school: Stand['school']
  /** It counts for nothing. */
  aside?: 'ownTempo' | 'tryOut' | 'tapped'
  /** When the first note is due, in s from the first sample. */
  first?: number
  /** How late the clicks of this device are in its recordings, in s; none where not known. */
  delay?: number
  /** Notes are marked as they are played. */
  marks?: boolean
}

/** What becomes of a note, as it is shown while a take is played. */
export type Marked = 'inTime' | 'early' | 'late' | 'wrong' | 'missed'
export interface Mark {
  index: number
  is: Marked
}

/** What the device says of a take; the studio, which decides, says the same. */
export interface DeviceVerdict {
  analysis: Analysis
  advice: Advice
  /** How far through the parts, where there are several. */
  parts?: MeasuredTake['parts']
  measured: MeasuredSummary['measured']
  /** How to move, for what was heard. */
  cues: string[]
  /** Every pass was clean. */
  clean: boolean
  /** What the next decision will rest on. */
  climbing: Climbing
}

/** What is said of a take in which no note was heard. */
export const nothing = 'nothing'
export type Said = DeviceVerdict | typeof nothing

export type Question = 'lay' | 'hear' | 'seek' | 'delay' | 'step'

export type ToEar =
  | { kind: 'begin'; take: string; task: string } // as JSON: what is watched cannot be sent
  | { kind: 'hear'; take: string; samples: Int32Array }
  | { kind: 'strike'; take: string; struck: Struck }
  | { kind: 'end'; take: string; struck?: Struck[] }
  | { kind: 'ask'; id: number; what: Question; question: string; samples?: Int32Array }

export type FromEar =
  | { kind: 'ready' }
  | { kind: 'gone'; why: string }
  | { kind: 'failed'; take: string; why: string }
  | { kind: 'marks'; take: string; marks: Mark[] }
  | { kind: 'verdict'; take: string; verdict: Said }
  | { kind: 'answer'; id: number; answer?: unknown; error?: string }

/** The part of a worker that is needed of one. */
export interface EarWorker {
  postMessage(message: ToEar, transfer?: Transferable[]): void
  addEventListener(on: 'message', hear: (event: MessageEvent<FromEar>) => void): void
  addEventListener(on: 'error', hear: (event: ErrorEvent) => void): void
  terminate(): void
}

export const newEarWorker = (): EarWorker =>
  new Worker(new URL('./ear.worker.ts', import.meta.url), { type: 'module' })

/** Whether a take is heard here, or only once it is handed in. */
export type Hearing = 'loading' | 'here' | 'handed in'

/** How long a verdict may take before the studio's is waited for instead, in ms. */
const patience = 5000

/**
 * Hears takes on this device while they are played. Where it cannot, it says nothing: the
 * take is judged once it is handed in.
 */
export class Ear {
  private take?: string
  private waiting?: (said: Said | undefined) => void
  private deaf = false

  /**
   * onHearing is told what can be heard here, once it is known and when that changes;
   * onMarks what has become of the notes of the take that is played.
   */
  constructor(
    private readonly worker: EarWorker,
    private readonly onHearing: (hearing: Hearing) => void = () => undefined,
    private readonly onMarks: (marks: Mark[]) => void = () => undefined,
  ) {
    worker.addEventListener('message', ({ data }) => this.told(data))
    worker.addEventListener('error', (event) => this.told({ kind: 'gone', why: event.message }))
  }

  /** An ear in a worker of its own; none where the browser has no such thing. */
  static open(
    onHearing: (hearing: Hearing) => void,
    make = newEarWorker,
    onMarks?: (marks: Mark[]) => void,
  ): Ear | undefined {
    try {
      return new Ear(make(), onHearing, onMarks)
    } catch (thrown) {
      console.warn('Takes are not heard on this device:', thrown)
      onHearing('handed in')
      return undefined
    }
  }

  begin(take: string, task: Task): void {
    this.settle(undefined)
    this.take = take
    this.send({ kind: 'begin', take, task: JSON.stringify(task) })
  }

  /** Takes in what the microphone gives, at full scale ±1. */
  hear(samples: Float32Array): void {
    if (!this.take) return
    const rounded = Int32Array.from(samples, sampleOf)
    this.send({ kind: 'hear', take: this.take, samples: rounded }, [rounded.buffer])
  }

  /** An instrument has told that a note begins. */
  strike(struck: Struck): void {
    if (this.take) this.send({ kind: 'strike', take: this.take, struck })
  }

  /** What is said of what was heard; none where the device cannot tell, or not in time. */
  end(within = patience, struck?: Struck[]): Promise<Said | undefined> {
    const { take } = this
    if (!take || this.deaf) return Promise.resolve(undefined)
    this.send({ kind: 'end', take, ...(struck && { struck }) })
    return new Promise((resolve) => {
      const late = setTimeout(() => this.settle(undefined), within)
      this.waiting = (verdict) => {
        clearTimeout(late)
        resolve(verdict)
      }
    })
  }

  close(): void {
    this.settle(undefined)
    this.deaf = true
    this.worker.terminate()
  }

  private send(message: ToEar, transfer?: Transferable[]) {
    if (this.deaf) return
    try {
      this.worker.postMessage(message, transfer)
    } catch (thrown) {
      this.told({ kind: 'gone', why: String(thrown) }) // never at the take's expense
    }
  }

  private told(message: FromEar) {
    switch (message.kind) {
      case 'ready':
        return this.onHearing('here')
      case 'gone':
        console.warn('Takes are not heard on this device:', message.why)
        this.deaf = true
        this.onHearing('handed in')
        return this.settle(undefined)
      case 'failed':
        if (message.take !== this.take) return
        this.take = undefined
        return this.settle(undefined)
      case 'marks':
        if (message.take === this.take) this.onMarks(message.marks)
        return
      case 'verdict':
        if (message.take === this.take) this.settle(message.verdict)
    }
  }

  /** Answers who waits. */
  private settle(said: Said | undefined) {
    this.waiting?.(said)
    this.waiting = undefined
  }
}
