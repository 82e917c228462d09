/** Runs on the audio thread: gathers what the microphone gives into chunks. */

declare const registerProcessor: (name: string, processor: unknown) => void
declare class AudioWorkletProcessor {
  readonly port: MessagePort
}

/** The frame of the audio clock at which the present block begins. */
declare const currentFrame: number

/** So few that a note is marked soon after it has sounded: 21 ms at 48 kHz. */
const chunkSize = 1024

/** A block in which nothing has come: 128 frames (Web Audio API, render quantum). */
const nothing = new Float32Array(128)

/** The longest that is filled up, in frames: ten seconds at 48 kHz. */
const longest = 480_000

class Recording extends AudioWorkletProcessor {
  private chunk = new Float32Array(chunkSize)
  private filled = 0
  /** When the first sample of the chunk came, in frames of the audio clock. */
  private from = 0
  /** The frame of the audio clock that comes next. */
  private next?: number

  constructor() {
    super()
    // The page asks for what is left when it stops.
    this.port.onmessage = () => {
      this.send()
      this.port.postMessage(null)
    }
  }

  process(inputs: Float32Array[][]): boolean {
    const input = inputs[0]?.[0] ?? nothing
    // Where the page is at work on what sounds, the clock of this thread may stand still for a
    // block: what is past already, it cannot say again. A clock ahead tells of blocks that
    // nobody asked for: they are silence, else all that follows would be early.
    const next = this.next ?? currentFrame
    const at = Math.max(next, currentFrame)
    const missing = Math.min(longest, at - next)
    for (let n = 0; n < missing; n++) this.take(0, at - missing + n)
    for (const [n, v] of input.entries()) this.take(v, at + n)
    this.next = at + input.length
    return true
  }

  private take(v: number, at: number): void {
    if (this.filled === 0) this.from = at
    this.chunk[this.filled++] = v
    if (this.filled === chunkSize) this.send()
  }

  private send(): void {
    const chunk = this.chunk.slice(0, this.filled)
    this.filled = 0
    if (chunk.length > 0) this.port.postMessage({ chunk, from: this.from }, [chunk.buffer])
  }
}

registerProcessor('recording', Recording)

export {} // a module, which tests can import
