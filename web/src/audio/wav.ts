/** A sample of full scale ±1 as one of 24 bits. */
export const sampleOf = (v: number): number => Math.round(Math.max(-1, Math.min(1, v)) * 0x7fffff)

/** Writes mono samples of full scale ±1 as a WAV file, PCM 24 bit. */
export function encodeWav(chunks: Float32Array[], rate: number): Blob {
  const frames = chunks.reduce((n, c) => n + c.length, 0)
  const view = new DataView(new ArrayBuffer(44 + 3 * frames))
  const text = (at: number, s: string) =>
    [...s].forEach((c, i) => view.setUint8(at + i, c.charCodeAt(0)))
  text(0, 'RIFF')
  view.setUint32(4, 36 + 3 * frames, true)
  text(8, 'WAVEfmt ')
  view.setUint32(16, 16, true)
  view.setUint16(20, 1, true) // PCM
  view.setUint16(22, 1, true) // mono
  view.setUint32(24, rate, true)
  view.setUint32(28, 3 * rate, true)
  view.setUint16(32, 3, true)
  view.setUint16(34, 24, true)
  text(36, 'data')
  view.setUint32(40, 3 * frames, true)
  let at = 44
  for (const chunk of chunks)
    for (const v of chunk) {
      const sample = sampleOf(v)
      view.setUint16(at, sample & 0xffff, true)
      view.setInt8(at + 2, sample >> 16)
      at += 3
    }
  return new Blob([view.buffer], { type: 'audio/wav' })
}
