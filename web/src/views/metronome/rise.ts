import type { Pulse } from '../../audio/pulse'

/** A tempo that goes to another by the same step a bar. */
export interface Rise {
  on: boolean
  to: number
  bars: number
}

/** The tempo from a click on, counted from the first. */
export function risen(p: Pulse, rise: Rise, click: number): number {
  if (!rise.on) return p.bpm
  const bar = Math.floor(click / p.clicks / p.beatsPerBar)
  return p.bpm + (rise.to - p.bpm) * Math.min(1, bar / rise.bars)
}

/** Longer than so, in s, it is no tempo but a new beginning. */
const longest = 3

/** The tempo of taps, in bpm, by the times they came at, in s; none of one alone. */
export function tappedBpm(times: number[]): number | undefined {
  const gaps = times.slice(1).map((t, i) => t - times[i]!)
  const from = gaps.findLastIndex((g) => g > longest) + 1
  const lately = gaps.slice(from)
  if (lately.length === 0) return undefined
  return (60 * lately.length) / lately.reduce((sum, g) => sum + g, 0)
}
