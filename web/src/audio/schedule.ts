/** A click of the metronome, in seconds of the audio clock. */
export interface Click {
  at: number
  strong: boolean
}

/** When everything of a take happens, in seconds of the audio clock. */
export interface Schedule {
  clicks: Click[]
  /** The first note. */
  first: number
  /** The end of the last note. */
  end: number
  secondsPerBeat: number
}

export const countInBeats = 4

/**
 * Lays out the count-in and the clicks of all passes from a start on; where the
 * drill is free, the click only counts in.
 */
export function scheduleOf(
  bpm: number,
  beatsPerPass: number,
  passes: number,
  start: number,
  free = false,
): Schedule {
  const secondsPerBeat = 60 / bpm
  const first = start + countInBeats * secondsPerBeat
  const beats = beatsPerPass * passes
  const clicks: Click[] = []
  for (let beat = -countInBeats; beat < (free ? 0 : beats - 1e-6); beat++)
    clicks.push({ at: first + beat * secondsPerBeat, strong: beat === -countInBeats || beat === 0 })
  return { clicks, first, end: first + beats * secondsPerBeat, secondsPerBeat }
}

/** Where a take is at a moment of the audio clock. */
export interface Moment {
  /** What is left to count, 4 to 1, before the first note. */
  countIn?: number
  /** The pass and the chart note that are due, both from 0. */
  pass?: number
  note?: number
  /** The beat of the bar, from 0, in the count-in too. */
  beat?: number
}

export function momentOf(
  s: Schedule,
  noteBeats: number[],
  beatsPerPass: number,
  now: number,
  beatsPerBar = 4,
): Moment {
  const beat = (now - s.first) / s.secondsPerBeat
  if (beat < 0) {
    const countIn = Math.min(countInBeats, Math.ceil(-beat))
    return { countIn, beat: countInBeats - countIn }
  }
  const pass = Math.floor(beat / beatsPerPass)
  const within = beat - pass * beatsPerPass
  let note = 0
  while (note + 1 < noteBeats.length && (noteBeats[note + 1] ?? 0) <= within + 1e-6) note++
  return { pass, note, beat: Math.floor(within + 1e-6) % beatsPerBar }
}
