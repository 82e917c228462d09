/** How a metronome beats. */
export interface Pulse {
  bpm: number
  beatsPerBar: number
  /** Clicks a beat, 1 to 8. */
  clicks: number
  /** Beats of the bar that are stressed, from 0. */
  accents: number[]
  /** Bars that are heard, and bars after them that are not, to try the inner clock. */
  on: number
  off: number
}

export const plainPulse: Pulse = {
  bpm: 80,
  beatsPerBar: 4,
  clicks: 1,
  accents: [0],
  on: 1,
  off: 0,
}

/** How much a click weighs: that of a stressed beat, of a beat, or between beats. */
export type Weight = 'strong' | 'beat' | 'between'

/** Whether a bar, counted from 0, is heard. */
export function isHeard({ on, off }: Pick<Pulse, 'on' | 'off'>, bar: number): boolean {
  return off === 0 || bar % (on + off) < on
}

/** The weight of a click, counted from the first, and none where it is not heard. */
export function weightOf(p: Pulse, click: number): Weight | undefined {
  const beat = Math.floor(click / p.clicks)
  if (!isHeard(p, Math.floor(beat / p.beatsPerBar))) return undefined
  if (click % p.clicks !== 0) return 'between'
  return p.accents.includes(beat % p.beatsPerBar) ? 'strong' : 'beat'
}
