import type { Stand } from '../../api/client'
import { usePlayback } from '../../audio/playback'
import type { StandCore } from '../../audio/standCore'
import { soundBeat } from '../../draw/rows'

/** Samples of 16 bits in base64, at full scale ±1. */
export function samplesIn(base64: string): Float32Array<ArrayBuffer> {
  const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0))
  const view = new DataView(bytes.buffer)
  return Float32Array.from(
    { length: bytes.length / 2 },
    (_, i) => view.getInt16(2 * i, true) / 32768,
  )
}

/** Lets a drill be heard as it should sound, as this device renders it: once through. */
export function useModel(core: StandCore | undefined) {
  const { playing, note, play, stop } = usePlayback()

  async function hear({ drill, guitar, hand, chart }: Stand, bpm: number, click: boolean) {
    if (!core) return
    const rung = { bpm, notesPerBeat: chart.notesPerBeat }
    const render = async (context: AudioContext) => {
      const sound = await core.ask('hear', { drill, guitar, hand, rung, click })
      const samples = samplesIn(sound.samples)
      const buffer = context.createBuffer(1, samples.length, sound.rate)
      buffer.copyToChannel(samples, 0)
      return buffer
    }
    const beats = chart.notes.map((n) => soundBeat(chart, n))
    await play(render, beats, bpm)
  }
  return { playing, note, hear, stop }
}
