/** Runs on the audio thread: gathers what the microphone gives into chunks. */

declare const registerProcessor: (name: string, processor: unknown) => void
declare class AudioWorkletProcessor {
  readonly port: MessagePort
}

/** The frame of the audio clock at which the present block begins. */
declare const currentFrame: number

/** So few that a note is marked soon after it has sounded: 21 ms at 48 kHz. */
const chunkSize = 1024

class Recording extends AudioWorkletProcessor {
  private chunk = new Float32Array(chunkSize)
  private filled = 0
  /** When the first sample of the chunk came, in frames of the audio clock. */
  private from = 0

  constructor() {
    super()
    // The page asks for what is left when it stops.
    this.port.onmessage = () => {
      this.send()
      this.port.postMessage(null)
    }
  }

  process(inputs: Float32Array[][]): boolean {
    const input = inputs[0]?.[0]
    if (!input) return true
    let at = currentFrame
    for (const v of input) {
      if (this.filled === 0) this.from = at
      at++
      this.chunk[this.filled++] = v
      if (this.filled === chunkSize) this.send()
    }
    return true
  }

  private send(): void {
    const chunk = this.chunk.slice(0, this.filled)
    this.filled = 0
    if (chunk.length > 0) this.port.postMessage({ chunk, from: this.from }, [chunk.buffer])
  }
}

registerProcessor('recording', Recording)
