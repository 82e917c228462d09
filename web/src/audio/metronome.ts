import { samplesOf, type ClickSound } from './clicksound'
import { weightOf, type Pulse, type Weight } from './pulse'
import type { Click } from './schedule'

/** Into which ear it clicks. */
export type Ears = 'both' | 'left' | 'right'

export interface ClickVoice {
  sound: ClickSound
  ears: Ears
  /** 0 to 1. */
  volume: number
}

const pans: Record<Ears, number> = { left: -1, both: 0, right: 1 }

/** Makes clicks, each handed to the audio clock, so that no timer of the page can move it. */
export class Metronome {
  private readonly gain: GainNode
  private readonly pan: StereoPannerNode
  private readonly buffers = new Map<Weight, AudioBuffer>()
  private readonly playing = new Set<{ source: AudioBufferSourceNode; at: number }>()

  constructor(
    private readonly context: AudioContext,
    { sound, ears, volume }: ClickVoice,
  ) {
    this.gain = context.createGain()
    this.gain.gain.value = volume
    this.pan = context.createStereoPanner()
    this.pan.pan.value = pans[ears]
    this.gain.connect(this.pan).connect(context.destination)
    for (const weight of ['strong', 'beat', 'between'] as const) {
      const samples = samplesOf(sound, weight, context.sampleRate)
      const buffer = context.createBuffer(1, samples.length, context.sampleRate)
      buffer.copyToChannel(samples, 0)
      this.buffers.set(weight, buffer)
    }
  }

  play(clicks: Click[]): void {
    for (const { at, weight } of clicks) {
      const source = this.context.createBufferSource()
      source.buffer = this.buffers.get(weight)!
      source.connect(this.gain)
      source.start(at)
      const one = { source, at }
      source.onended = () => this.playing.delete(one)
      this.playing.add(one)
    }
  }

  /** Takes back what has not been heard yet by a time. */
  takeBack(from: number): void {
    for (const one of this.playing)
      if (one.at >= from) {
        one.source.onended = null
        one.source.stop()
        this.playing.delete(one)
      }
  }

  stop(): void {
    this.takeBack(-Infinity)
    this.gain.disconnect()
    this.pan.disconnect()
  }
}

/** How far ahead clicks are handed to the audio clock, in s: timers of a hidden page wait for a second. */
const ahead = 1.6
/** How often it is looked, in ms. */
const every = 100
/** What is so near is left as it is when the pulse changes, in s. */
const near = 0.05

/** Clicks for as long as one likes; tempo and all else may be changed meanwhile. */
export class EndlessClick {
  private metronome: Metronome
  private timer?: ReturnType<typeof setInterval>
  /** The next click to be handed over: its number, and when. */
  private next = { click: 0, at: 0 }
  /** Those handed over, with how they were laid, so that they can be laid anew. */
  private laid: { click: number; at: number }[] = []

  constructor(
    private readonly context: AudioContext,
    private pulse: Pulse,
    voice: ClickVoice,
    /** The tempo from a click on; the pulse's where not given. */
    private readonly tempoAt: (click: number, pulse: Pulse) => number = (_, p) => p.bpm,
  ) {
    this.metronome = new Metronome(context, voice)
  }

  start(): void {
    this.next = { click: 0, at: this.context.currentTime + 0.1 }
    this.hand()
    this.timer = setInterval(() => this.hand(), every)
  }

  /** Beats otherwise from the next click on. A tempo goes on from where it is; another metre begins a bar. */
  change(pulse: Pulse, voice: ClickVoice): void {
    const now = this.context.currentTime + near
    const same = pulse.beatsPerBar === this.pulse.beatsPerBar && pulse.clicks === this.pulse.clicks
    this.metronome.takeBack(now)
    const coming = this.laid.find((l) => l.at >= now)
    if (coming) this.next = { ...coming }
    if (!same) this.next.click = 0
    this.laid = this.laid.filter((l) => l.at < now)
    this.pulse = pulse
    const last = this.metronome
    setTimeout(() => last.stop(), 200) // what sounds, sounds on
    this.metronome = new Metronome(this.context, voice)
    this.hand()
  }

  /** The beat of the bar and the tempo at a time; none before the first click. */
  at(time: number): { beat: number; bpm: number } | undefined {
    const last = this.laid.findLast((l) => l.at <= time)
    if (!last) return undefined
    const beat = Math.floor(last.click / this.pulse.clicks) % this.pulse.beatsPerBar
    return { beat, bpm: this.tempoAt(last.click, this.pulse) }
  }

  stop(): void {
    clearInterval(this.timer)
    this.metronome.stop()
  }

  private hand() {
    const until = this.context.currentTime + ahead
    while (this.next.at < until) {
      const { click, at } = this.next
      const weight = weightOf(this.pulse, click)
      if (weight) this.metronome.play([{ at, weight }])
      this.laid.push({ click, at })
      this.next = {
        click: click + 1,
        at: at + 60 / this.tempoAt(click, this.pulse) / this.pulse.clicks,
      }
    }
    this.laid = this.laid.slice(-64)
  }
}
