import { encodeWav } from './wav'

/** What the server reads itself, by its first bytes: WAV, FLAC with or without a tag, MIDI. */
const readByServer = ['RIFF', 'fLaC', 'MThd']

/** As far as a file is decoded here: beyond, it would not fit into memory. */
const largest = 64 * 2 ** 20

/** The rate at which foreign sounds are handed in. */
const rate = 44100

/**
 * Makes of a file what the server reads: any sound that this browser can decode, as a
 * telephone records it, becomes WAV. What it cannot decode, or not within its memory, goes
 * as it is, for the server to say what is wrong with it.
 */
export async function readable(file: File): Promise<Blob> {
  const start = new TextDecoder('latin1').decode(await file.slice(0, 4).arrayBuffer())
  if (readByServer.includes(start) || file.size > largest) return file
  try {
    const sound = await new OfflineAudioContext(1, 1, rate).decodeAudioData(
      await file.arrayBuffer(),
    )
    return encodeWav([monoOf(sound)], sound.sampleRate)
  } catch {
    return file
  }
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
