import { afterEach, describe, expect, it, vi } from 'vitest'

import { monoOf, readable } from './decode'

const file = (start: string, size = 100) =>
  new File([start, new Uint8Array(size)], 'take', { type: 'application/octet-stream' })

afterEach(() => vi.unstubAllGlobals())

/** A browser that decodes what begins as an MP4 file does. */
function browser() {
  vi.stubGlobal(
    'OfflineAudioContext',
    class {
      async decodeAudioData(bytes: ArrayBuffer) {
        if (new TextDecoder('latin1').decode(bytes.slice(4, 8)) !== 'ftyp') throw new Error('no')
        const channels = [new Float32Array([0.5, 1, 0]), new Float32Array([0.5, 0, 0])]
        return {
          sampleRate: 44100,
          numberOfChannels: 2,
          getChannelData: (c: number) => channels[c] as Float32Array,
        }
      }
    },
  )
}

describe('a file that is handed in', () => {
  it('goes as it is where the server reads it', async () => {
    for (const start of ['RIFF', 'fLaC', 'MThd']) {
      const made = file(start)
      expect(await readable(made)).toBe(made)
    }
  })
  it('becomes WAV where the browser decodes it', async () => {
    browser()
    const made = await readable(file('\0\0\0\x20ftypM4A '))
    const view = new DataView(await made.arrayBuffer())
    expect(made.type).toBe('audio/wav')
    expect(view.getUint32(24, true)).toBe(44100)
    expect(view.getUint32(40, true)).toBe(3 * 3)
  })
  it('goes as it is where nobody decodes it, for the server to say so', async () => {
    browser()
    const made = file('dear teacher')
    expect(await readable(made)).toBe(made)
  })
  it('goes as it is where it is too large to be decoded', async () => {
    browser()
    for (const size of [65 * 2 ** 20, 11 * 2 ** 20]) {
      const made = file('\0\0\0\x20ftypM4A ', size)
      expect(await readable(made), 'nobody tells how long it is').toBe(made)
    }
  })
})

describe('several channels', () => {
  it('become their mean', () => {
    const of = (channels: number[][]) => ({
      numberOfChannels: channels.length,
      getChannelData: (c: number) => new Float32Array(channels[c] ?? []),
    })
    expect([...monoOf(of([[1, 0.5]]))]).toEqual([1, 0.5])
    expect([
      ...monoOf(
        of([
          [1, 0.5],
          [0, -0.5],
        ]),
      ),
    ]).toEqual([0.5, 0])
  })
})
