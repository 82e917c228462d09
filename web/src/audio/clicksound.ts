import type { Weight } from './pulse'

/** What a click sounds like: pitches of a stressed beat, a beat, and between beats, in Hz. */
export type ClickSound = 'usual' | 'high' | 'low'

const pitches: Record<ClickSound, Record<Weight, number>> = {
  usual: { strong: 1980, beat: 1320, between: 990 },
  high: { strong: 3300, beat: 2640, between: 2200 },
  low: { strong: 1100, beat: 825, between: 660 },
}
const levels: Record<Weight, number> = { strong: 1, beat: 1, between: 0.5 }

/** How long a click lasts, in s: too short for a listener to take it for a note. */
const lasts = 0.03

/** The samples of a click. */
export function samplesOf(
  sound: ClickSound,
  weight: Weight,
  rate: number,
): Float32Array<ArrayBuffer> {
  const samples = new Float32Array(Math.round(lasts * rate))
  const hz = pitches[sound][weight]
  for (let i = 0; i < samples.length; i++)
    samples[i] =
      levels[weight] * Math.sin((2 * Math.PI * hz * i) / rate) * Math.exp((-i / rate) * 180)
  return samples
}
