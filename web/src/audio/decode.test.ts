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
  it('is decoded where it is a WAV file that the server does not read', async () => {
    browser()
    const wav = (kind: number, channels: number, bits: number, first = 'fmt ') => {
      const head = new DataView(new ArrayBuffer(100))
      const put = (at: number, text: string) =>
        [...text].forEach((letter, i) => head.setUint8(at + i, letter.charCodeAt(0)))
      put(0, 'RIFF')
      put(4, 'ftyp') // this browser decodes it
      put(12, first)
      const at = first === 'fmt ' ? 12 : 12 + 8 + 6
      head.setUint32(16, first === 'fmt ' ? 16 : 5, true)
      put(at, 'fmt ')
      head.setUint32(at + 4, 16, true)
      head.setUint16(at + 8, kind, true)
      head.setUint16(at + 10, channels, true)
      head.setUint16(at + 22, bits, true)
      return new File([head], 'take.wav')
    }
    for (const [kind, channels, bits] of [
      [1, 1, 16],
      [1, 2, 24],
      [1, 2, 32],
      [3, 2, 32],
      [0xfffe, 2, 24],
    ] as const) {
      const made = wav(kind, channels, bits)
      expect(await readable(made), `${kind} ${bits}`).toBe(made)
    }
    for (const [kind, channels, bits] of [
      [7, 1, 8], // µ-law
      [6, 1, 8], // A-law
      [2, 1, 4], // ADPCM
      [1, 1, 8],
      [3, 2, 64],
      [1, 4, 16],
    ] as const) {
      expect((await readable(wav(kind, channels, bits))).type, `${kind} ${bits}`).toBe('audio/wav')
      expect((await readable(wav(kind, channels, bits, 'JUNK'))).type).toBe('audio/wav')
    }
    for (const length of [0, 7, 0xffffffff]) {
      const nowhere = new DataView(new ArrayBuffer(5000))
      ;[...'RIFF'].forEach((letter, i) => nowhere.setUint8(i, letter.charCodeAt(0)))
      for (let at = 16; at + 4 <= 5000; at += 8) nowhere.setUint32(at, length, true)
      const made = new File([nowhere], 'nowhere.wav')
      expect(await readable(made), `chunks of ${length} bytes`).toBe(made)
    }
    const short = file('RIFF', 2)
    expect(await readable(short), 'for the server to say that it is cut off').toBe(short)
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
