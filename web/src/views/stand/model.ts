import { onBeforeUnmount, ref } from 'vue'

import type { Stand } from '../../api/client'
import type { StandCore } from '../../audio/standCore'

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
  const playing = ref(false)
  const note = ref<number>()
  let context: AudioContext | undefined
  let source: AudioBufferSourceNode | undefined
  let frame = 0

  async function hear({ drill, guitar, chart }: Stand, bpm: number, click: boolean) {
    stop()
    if (!core) return
    playing.value = true
    const rung = { bpm, notesPerBeat: chart.notesPerBeat }
    try {
      const sound = await core.ask('hear', { drill, guitar, rung, click })
      if (!playing.value) return // stopped meanwhile
      context ??= new AudioContext()
      await context.resume()
      const samples = samplesIn(sound.samples)
      const buffer = context.createBuffer(1, samples.length, sound.rate)
      buffer.copyToChannel(samples, 0)
      source = context.createBufferSource()
      source.buffer = buffer
      source.connect(context.destination)
      source.onended = stop
      const start = context.currentTime + 0.05
      source.start(start)
      const beats = chart.notes.map((n) => n.beat)
      follow(beats, bpm, start)
    } catch (thrown) {
      stop()
      throw thrown
    }
  }

  function follow(beats: number[], bpm: number, start: number) {
    const beat = (((context?.currentTime ?? 0) - start) * bpm) / 60
    const at = beats.findLastIndex((b) => b <= beat + 1e-6)
    note.value = at < 0 ? undefined : at
    frame = requestAnimationFrame(() => follow(beats, bpm, start))
  }

  function stop() {
    cancelAnimationFrame(frame)
    if (source) {
      source.onended = null
      source.stop()
      source = undefined
    }
    playing.value = false
    note.value = undefined
  }
  onBeforeUnmount(() => {
    stop()
    void context?.close()
  })
  return { playing, note, hear, stop }
}
