import { answer, client, type Chart, type DrillFile } from '../api/client'
import { usePlayback } from '../audio/playback'
import { bytesOf } from './download'
import { soundBeat } from '../draw/rows'

/** Plays a drill as the server renders it, once through. */
export function useHearing() {
  const { playing, note, play, stop } = usePlayback()

  function hear(file: DrillFile, chart: Chart, bpm: number, click: boolean, whom?: string) {
    const once = { ...file, drill: { ...file.drill, rhythm: { ...file.drill.rhythm, passes: 1 } } }
    const query = { format: click ? ('wavClick' as const) : ('wav' as const), bpm, for: whom }
    const render = async (context: AudioContext) => {
      const out = await answer(client.POST('/export', { body: once, params: { query } }))
      return context.decodeAudioData(bytesOf(out).buffer)
    }
    return play(
      render,
      chart.notes.map((n) => soundBeat(chart, n)),
      bpm,
    )
  }
  return { playing, note, play: hear, stop }
}
