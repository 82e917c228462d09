import type { Schedule } from './schedule'

/**
 * Plays the clicks of a schedule. All are handed to the audio clock at once, so
 * that no timer of the page can move them.
 */
export class Metronome {
  private readonly out: GainNode
  private readonly playing: AudioBufferSourceNode[] = []

  constructor(
    private readonly context: AudioContext,
    volume: number,
  ) {
    this.out = context.createGain()
    this.out.gain.value = volume
    this.out.connect(context.destination)
  }

  play(schedule: Schedule): void {
    const strong = this.tick(1980)
    const weak = this.tick(1320)
    for (const click of schedule.clicks) {
      const source = this.context.createBufferSource()
      source.buffer = click.strong ? strong : weak
      source.connect(this.out)
      source.start(click.at)
      this.playing.push(source)
    }
  }

  stop(): void {
    for (const source of this.playing) source.stop()
    this.playing.length = 0
    this.out.disconnect()
  }

  /** A click short enough that a listener never takes it for a note. */
  private tick(hz: number): AudioBuffer {
    const rate = this.context.sampleRate
    const buffer = this.context.createBuffer(1, Math.round(0.03 * rate), rate)
    const data = buffer.getChannelData(0)
    for (let i = 0; i < data.length; i++)
      data[i] = Math.sin((2 * Math.PI * hz * i) / rate) * Math.exp((-i / rate) * 180)
    return buffer
  }
}
