import { onBeforeUnmount, ref } from 'vue'

/** Plays the sound of a drill, once through, and tells the note that sounds. */
export function usePlayback() {
  const playing = ref(false)
  const note = ref<number>()
  let context: AudioContext | undefined
  let source: AudioBufferSourceNode | undefined
  let frame = 0

  /** Plays what is rendered; beats are those of its notes. May throw what rendering does. */
  async function play(
    render: (context: AudioContext) => Promise<AudioBuffer>,
    beats: number[],
    bpm: number,
  ) {
    stop()
    playing.value = true
    context ??= new AudioContext()
    try {
      const buffer = await render(context)
      if (!playing.value) return // stopped while it was made
      await context.resume()
      source = context.createBufferSource()
      source.buffer = buffer
      source.connect(context.destination)
      source.onended = stop
      const start = context.currentTime + 0.05
      source.start(start)
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
  return { playing, note, play, stop }
}
