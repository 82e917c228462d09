import { onBeforeUnmount, ref } from 'vue'

import { answer, client, type Chart, type DrillFile } from '../api/client'
import { bytesOf } from './download'

/**
 * Plays a drill as the server renders it, once through, and tells the note that
 * sounds.
 */
export function useHearing() {
  const playing = ref(false)
  const note = ref<number>()
  let context: AudioContext | undefined
  let source: AudioBufferSourceNode | undefined
  let frame = 0

  async function play(file: DrillFile, chart: Chart, bpm: number, click: boolean, whom?: string) {
    stop()
    playing.value = true
    context ??= new AudioContext()
    const once = { ...file, drill: { ...file.drill, rhythm: { ...file.drill.rhythm, passes: 1 } } }
    try {
      const out = await answer(
        client.POST('/export', {
          body: once,
          params: { query: { format: click ? 'wavClick' : 'wav', bpm, for: whom } },
        }),
      )
      const buffer = await context.decodeAudioData(bytesOf(out).buffer)
      if (!playing.value) return // stopped while it was made
      await context.resume()
      source = context.createBufferSource()
      source.buffer = buffer
      source.connect(context.destination)
      source.onended = stop
      const start = context.currentTime + 0.05
      source.start(start)
      follow(chart, bpm, start)
    } catch (thrown) {
      stop()
      throw thrown
    }
  }

  function follow(chart: Chart, bpm: number, start: number) {
    const beat = (((context?.currentTime ?? 0) - start) * bpm) / 60
    let at = -1
    while (at + 1 < chart.notes.length && (chart.notes[at + 1]?.beat ?? 0) <= beat + 1e-6) at++
    note.value = at >= 0 ? at : undefined
    frame = requestAnimationFrame(() => follow(chart, bpm, start))
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
  return { playing, note, play, stop }
}
