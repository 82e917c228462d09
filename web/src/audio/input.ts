/** What is to be said of the level of an input. */
export type InputWord = 'silent' | 'soft' | 'good' | 'clipped'

/** The level is looked at over so many seconds, in bars of so many, */
export const looksBack = 4
export const barSeconds = 0.05
/** from this many dB of full scale on; below nothing can be heard. */
export const floorDb = -70

/** A peak softer than this, in dB, is no string but the room. */
const roomDb = -54
/**
 * Playing whose peaks stay below this, in dB, is too soft: a string's mean power is some
 * 10 dB less, and the listener lifts no recording whose loudest lies under −45 dB.
 */
const softDb = -35
/** An input is at its end there; so many samples at one go are no chance. */
const fullScale = 0.985
const atOneGo = 3

/** Follows how loud the input is, so that it can be drawn and put into a word. */
export class InputLevel {
  /** Peaks of the bars, in dB of full scale, the latest last. */
  readonly bars: number[] = []
  private readonly clipped: boolean[] = []
  private peak = 0
  private count = 0
  private full = 0
  private clips = false

  constructor(private readonly rate: number) {}

  hear(samples: Float32Array): void {
    const length = Math.round(barSeconds * this.rate)
    for (const v of samples) {
      const loud = Math.abs(v)
      this.peak = Math.max(this.peak, loud)
      this.full = loud >= fullScale ? this.full + 1 : 0
      this.clips ||= this.full >= atOneGo
      if (++this.count === length) this.endBar()
    }
  }

  private endBar() {
    this.bars.push(Math.max(floorDb, 20 * Math.log10(this.peak + 1e-9)))
    this.clipped.push(this.clips)
    if (this.bars.length > looksBack / barSeconds) {
      this.bars.shift()
      this.clipped.shift()
    }
    this.peak = this.count = 0
    this.clips = false
  }

  /** Whether a bar was at the end of the input. */
  isClipped(bar: number): boolean {
    return !!this.clipped[bar]
  }

  /** Undefined before anything has come. */
  get word(): InputWord | undefined {
    if (this.bars.length === 0) return undefined
    if (this.clipped.includes(true)) return 'clipped'
    const loudest = Math.max(...this.bars)
    if (loudest < roomDb) return 'silent'
    return loudest < softDb ? 'soft' : 'good'
  }
}

/** What a word means, and what to do. */
export const inputAdvice: Record<InputWord, string> = {
  silent: 'Nothing is heard. Play a note; if the picture stays flat, choose another input.',
  soft: 'Too soft. Turn the input up, or go nearer to the microphone.',
  good: 'Heard well.',
  clipped: 'Too loud: the tops are cut off. Turn the input down, or move away.',
}
