import { encodeWav } from './wav'

/** What the server reads itself, by its first bytes: WAV, FLAC with or without a tag, MIDI. */
const readByServer = ['RIFF', 'fLaC', 'MThd']

/**
 * As far as a file is decoded here: beyond, its sound would not fit into memory. How long
 * it is the browser tells before it decodes; of one that it does not tell of, as of a
 * stream, less is taken.
 */
const largest = 64 * 2 ** 20
const largestUntold = 10 * 2 ** 20
const longest = 20 * 60 // s, as a take may last

/** The rate at which foreign sounds are handed in. */
const rate = 44100

/**
 * Makes of a file what the server reads: any sound that this browser can decode, as a
 * telephone records it, becomes WAV. What it cannot decode, or not within its memory, goes
 * as it is, for the server to say what is wrong with it.
 */
export async function readable(file: File): Promise<Blob> {
  const head = new DataView(await file.slice(0, headBytes).arrayBuffer())
  const start = letters(head, 0)
  if (readByServer.includes(start) && !(start === 'RIFF' && isOtherWav(head))) return file
  const sound = await decoded(file)
  return sound ? encodeWav([monoOf(sound)], sound.sampleRate) : file
}

/** Of a file's head so much is looked at; what a WAV file is comes within it. */
const headBytes = 4096

const letters = (head: DataView, at: number) =>
  new TextDecoder('latin1').decode(new Uint8Array(head.buffer).slice(at, at + 4))

/**
 * Whether a WAV file holds what the server does not read: a telephone's or another
 * compression, 8 or 64 bits, more than two channels. Its chunks have four letters and a
 * length (Multimedia Programming Interface and Data Specifications 1.0, IBM and Microsoft, 1991).
 */
function isOtherWav(head: DataView): boolean {
  const [pcm, float, extensible] = [1, 3, 0xfffe]
  for (let at = 12; at + 24 <= head.byteLength;) {
    const length = head.getUint32(at + 4, true)
    if (letters(head, at) === 'fmt ') {
      const kind = head.getUint16(at + 8, true)
      const bits = head.getUint16(at + 22, true)
      const read = kind === float ? [32] : [16, 24, 32]
      return (
        ![pcm, float, extensible].includes(kind) ||
        !read.includes(bits) ||
        head.getUint16(at + 10, true) > 2
      )
    }
    at += 8 + length + (length % 2)
  }
  return false
}

/** The sound of a file, where this browser can decode it within its memory. */
export async function decoded(file: File): Promise<AudioBuffer | undefined> {
  if (file.size > largest) return undefined
  const seconds = await lengthOf(file)
  if (seconds > longest || (!Number.isFinite(seconds) && file.size > largestUntold))
    return undefined
  try {
    return await new OfflineAudioContext(1, 1, rate).decodeAudioData(await file.arrayBuffer())
  } catch {
    return undefined
  }
}

/** How long a file's sound is, s; not a number where the browser does not tell. */
function lengthOf(file: File): Promise<number> {
  if (typeof Audio === 'undefined') return Promise.resolve(NaN)
  return new Promise((resolve) => {
    const sound = new Audio()
    const told = (seconds: number) => {
      URL.revokeObjectURL(sound.src)
      resolve(seconds === Infinity ? NaN : seconds)
    }
    sound.preload = 'metadata'
    sound.onloadedmetadata = () => told(sound.duration)
    sound.onerror = () => told(NaN)
    sound.src = URL.createObjectURL(file)
  })
}

/** The mean of all channels. */
export function monoOf(sound: {
  numberOfChannels: number
  getChannelData(channel: number): Float32Array
}): Float32Array {
  const mono = Float32Array.from(sound.getChannelData(0))
  for (let c = 1; c < sound.numberOfChannels; c++)
    sound.getChannelData(c).forEach((v, i) => (mono[i] = (mono[i] ?? 0) + v))
  return mono.map((v) => v / sound.numberOfChannels)
}
