import type { DeviceVerdict } from '../../audio/ear'

/** What is said of a take aloud: the one thing that matters, and what comes next. */
export function sayingOf({ advice, measured }: DeviceVerdict): string {
  const { decision } = measured
  const next = {
    up: `Up to ${decision.next.bpm}.`,
    hold: 'Stay at this tempo.',
    down: `Down to ${decision.next.bpm}.`,
  }[decision.step]
  const heard = advice.findings[0]?.text ?? advice.tally
  return `${heard} ${decision.reached ? 'Target reached.' : next}`
}

/** Tones that say the same where a browser has no voice: rising for up, falling for down. */
const tones: Record<'up' | 'hold' | 'down', number[]> = {
  up: [523, 659, 784],
  hold: [523, 523],
  down: [523, 392],
}

/** Says a verdict aloud, in the browser's own voice or in tones. */
export function say(
  verdict: DeviceVerdict,
  context: () => AudioContext = () => new AudioContext(),
) {
  const voice = globalThis.speechSynthesis
  if (voice?.getVoices().length) {
    voice.cancel()
    const words = new SpeechSynthesisUtterance(sayingOf(verdict))
    words.lang = 'en'
    voice.speak(words)
    return
  }
  const ctx = context()
  tones[verdict.measured.decision.step].forEach((hz, i) => {
    const tone = ctx.createOscillator()
    const gain = ctx.createGain()
    const at = ctx.currentTime + 0.05 + i * 0.22
    tone.frequency.value = hz
    gain.gain.setValueAtTime(0.2, at)
    gain.gain.exponentialRampToValueAtTime(0.001, at + 0.2)
    tone.connect(gain).connect(ctx.destination)
    tone.start(at)
    tone.stop(at + 0.2)
    if (i === tones[verdict.measured.decision.step].length - 1)
      tone.onended = () => void ctx.close()
  })
}
