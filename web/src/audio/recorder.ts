import { Problem } from '../api/client'
import workletUrl from './recorder.worklet.ts?worker&url'

/** Takes what the microphone gives, sample for sample. */
export class Recorder {
  private onChunk?: (samples: Float32Array, from: number) => void
  private flushed?: () => void

  private constructor(
    private readonly stream: MediaStream,
    private readonly source: AudioNode,
    private readonly node: AudioWorkletNode,
    onInput: (samples: Float32Array) => void,
  ) {
    node.port.onmessage = ({
      data,
    }: MessageEvent<{ chunk: Float32Array; from: number } | null>) => {
      if (data === null) return this.flushed?.()
      onInput(data.chunk)
      this.onChunk?.(data.chunk, data.from)
    }
  }

  /**
   * Opens a microphone; that of the browser's choice where none is named. onInput is given
   * all that comes, recorded or not; onLost is called when it goes away.
   */
  static async open(
    context: AudioContext,
    microphone: string,
    onInput: (samples: Float32Array) => void,
    onLost: () => void,
  ): Promise<Recorder> {
    const stream = await askForMicrophone(microphone)
    await context.audioWorklet.addModule(workletUrl)
    const node = new AudioWorkletNode(context, 'recording', { numberOfOutputs: 0 })
    const source = context.createMediaStreamSource(stream)
    source.connect(node)
    stream.getAudioTracks()[0]?.addEventListener('ended', onLost)
    return new Recorder(stream, source, node, onInput)
  }

  /** From now on onChunk is given what comes, and from which frame of the audio clock on. */
  start(onChunk: (samples: Float32Array, from: number) => void): void {
    this.onChunk = onChunk
  }

  /** Ends a recording; all that was heard until now has come through then. */
  async stop(): Promise<void> {
    await new Promise<void>((resolve) => {
      this.flushed = resolve
      this.node.port.postMessage('flush')
    })
    this.onChunk = undefined
  }

  close(): void {
    for (const track of this.stream.getTracks()) track.stop()
    this.source.disconnect()
  }
}

async function askForMicrophone(microphone: string): Promise<MediaStream> {
  if (!navigator.mediaDevices)
    throw new Problem(
      'No microphone can be used here',
      'The browser gives the microphone only to pages on this machine or over https. Open Manudrill at the address it printed.',
    )
  try {
    // Everything that would bend the sound is off.
    return await navigator.mediaDevices.getUserMedia({
      audio: {
        ...(microphone && { deviceId: { exact: microphone } }),
        echoCancellation: false,
        noiseSuppression: false,
        autoGainControl: false,
      },
    })
  } catch (thrown) {
    throw microphoneProblem(thrown)
  }
}

/** What keeps the microphone away, and what to do. */
export function microphoneProblem(thrown: unknown): Problem {
  const name = thrown instanceof DOMException ? thrown.name : ''
  switch (name) {
    case 'NotAllowedError':
      return new Problem(
        'The microphone was refused',
        'Allow the microphone for this page beside the browser’s address, then press Play again. You can also drop a recorded file.',
      )
    case 'NotFoundError':
      return new Problem(
        'There is no microphone',
        'Plug a microphone or an audio interface in, then press Play again. You can also drop a recorded file.',
      )
    case 'OverconstrainedError':
      return new Problem(
        'The chosen input is not there',
        'Plug it in again, or choose another below, then press Play again.',
      )
    case 'NotReadableError':
      return new Problem(
        'The microphone is taken',
        'Another program uses the microphone. Close it there, then press Play again.',
      )
  }
  console.error(thrown)
  return new Problem(
    'The microphone does not work',
    'Unplug it and plug it in again, then press Play again. You can also drop a recorded file.',
  )
}
