import type { Schedule } from './schedule'

/** How the level is followed: blocks of so many seconds, each against those before. */
const block = 0.01
const blocksBefore = 5
/** A note is begun where the power rises so many times over, */
const rises = 2
/** and is no fainter than this share of the loudest. */
const faintest = 1e-3
/** Quieter than this, in power, nothing is heard at all: −70 dB of full scale. */
const silent = 1e-7
/** A pause within a take, s: somebody who has made one may make another. */
const pause = 1.5

/** Tells by the sound of a recording whether somebody still plays. */
export class Playing {
  private before: number[] = []
  private loudest = 0
  private sum = 0
  private count = 0
  private heard = 0
  private begun?: number
  /** Whether there was a pause between two notes. */
  paused = false

  constructor(private readonly rate: number) {}

  hear(samples: Float32Array): void {
    const length = Math.round(block * this.rate)
    for (const v of samples) {
      this.sum += v * v
      if (++this.count < length) continue
      this.heard++
      this.follow(this.sum / length)
      this.sum = this.count = 0
    }
  }

  /** Seconds since the last note was begun; infinite where there was none. */
  get idle(): number {
    return this.begun === undefined ? Infinity : (this.heard - this.begun) * block
  }

  private follow(power: number): void {
    this.loudest = Math.max(this.loudest, power)
    const was = Math.min(...this.before)
    if (power > silent && power > faintest * this.loudest && power > rises * was) {
      if (this.begun !== undefined && this.idle > pause) this.paused = true
      this.begun = this.heard
    }
    this.before.push(power)
    if (this.before.length > blocksBefore) this.before.shift()
  }
}

/** What is recorded after the last note is due, s. */
const tail = 0.5
/** How long somebody who has paused is waited for, s. */
const patience = 2.5
/** The longest that is waited for somebody who has fallen behind, s. */
const longest = 30

/**
 * Whether a take is over: its time is up, and nobody begins a note any more. Who has
 * fallen behind is heard to the end, for as long again as the take should last at the
 * most; what comes besides, a voice perhaps, does not keep it open.
 */
export function isOver(
  now: number,
  s: Schedule,
  interval: number,
  playing: Pick<Playing, 'idle' | 'paused'>,
): boolean {
  if (now < s.end + tail) return false
  if (now > s.end + Math.min(longest, s.end - s.first)) return true
  return playing.idle > (playing.paused ? patience : 1.5 * interval + 0.3)
}
