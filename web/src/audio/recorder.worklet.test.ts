import { expect, test } from 'vitest'

/** The audio thread, as far as a processor sees it. */
const thread = globalThis as unknown as {
  AudioWorkletProcessor: unknown
  registerProcessor: (name: string, made: new () => Processor) => void
  currentFrame: number
}
interface Processor {
  process: (inputs: Float32Array[][]) => boolean
  port: { onmessage?: () => void }
}
interface Sent {
  chunk: Float32Array
  from: number
}

const block = 128
let sent: Sent[]
let made: new () => Processor

thread.AudioWorkletProcessor = class {
  port = { postMessage: (message: Sent | null) => message && sent.push(message) }
}
thread.registerProcessor = (_, processor) => (made = processor)
await import('./recorder.worklet')

/**
 * What is recorded where the clock says these frames, block for block. Each sample is the
 * number of the block that it came in, from 1; none came in blocks named in without.
 */
function recorded(clock: number[], without: number[] = []): { from: number; blocks: number[] } {
  sent = []
  const processor = new made()
  for (const [n, frame] of clock.entries()) {
    thread.currentFrame = frame
    processor.process(without.includes(n + 1) ? [[]] : [[new Float32Array(block).fill(n + 1)]])
  }
  processor.port.onmessage?.()
  const samples = sent.flatMap((s) => [...s.chunk])
  let next = sent[0]!.from
  for (const s of sent) {
    expect(s.from).toBe(next)
    next += s.chunk.length
  }
  return { from: sent[0]!.from, blocks: samples.filter((_, n) => n % block === 0) }
}

const running = (blocks: number, from = 0) =>
  Array.from({ length: blocks }, (_, n) => from + n * block)

test('what comes is sent sample for sample, from where the clock was', () => {
  const told = recorded(running(20, 4 * block))
  expect(told.from).toBe(4 * block)
  expect(told.blocks).toEqual(Array.from({ length: 20 }, (_, n) => n + 1))
})

test('a block that nobody asked for, or that nothing came in, is silence', () => {
  expect(recorded([0, 128, 384, 512]).blocks).toEqual([1, 2, 0, 3, 4])
  expect(recorded([0, 128, 256], [2]).blocks).toEqual([1, 0, 3])
})

test('a clock that stands still for some blocks moves nothing that comes after them', () => {
  expect(recorded([0, 128, 128, 128, 512, 640]).blocks).toEqual([1, 2, 3, 4, 5, 6])
})

test('a gap that such a clock hides is filled when it is told', () => {
  // Block 3 was not asked for, and when the next came the clock stood still.
  expect(recorded([0, 128, 128, 512]).blocks).toEqual([1, 2, 3, 0, 4])
})
