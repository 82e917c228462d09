/** Runs on the audio thread: gathers what the microphone gives into chunks. */

declare const registerProcessor: (name: string, processor: unknown) => void
declare class AudioWorkletProcessor {
  readonly port: MessagePort
}

const chunkSize = 8192

class Recording extends AudioWorkletProcessor {
  private chunk = new Float32Array(chunkSize)
  private filled = 0

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
    for (const v of input) {
      this.chunk[this.filled++] = v
      if (this.filled === chunkSize) this.send()
    }
    return true
  }

  private send(): void {
    const chunk = this.chunk.slice(0, this.filled)
    this.filled = 0
    if (chunk.length > 0) this.port.postMessage(chunk, [chunk.buffer])
  }
}

registerProcessor('recording', Recording)
