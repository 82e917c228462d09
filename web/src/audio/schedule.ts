import { weightOf, type Pulse, type Weight } from './pulse'

/** A click of the metronome, in seconds of the audio clock. */
export interface Click {
  at: number
  weight: Weight
}

/** What is played with which click. */
export interface Asked {
  bpm: number
  beatsPerPass: number
  passes: number
  beatsPerBar: number
  /** The click only counts in. */
  free?: boolean
  /** By how many bpm each pass is faster than the one before. */
  rise?: number
}

/** How somebody wants to be clicked at, beside the tempo. */
export interface ClickChoices {
  /** Bars counted in. */
  countIn: 1 | 2
  /** Clicks a beat, 1 to 8. */
  clicks: number
  accents: boolean
  /** Bars that are heard, and bars after them that are not. */
  on: number
  off: number
}

export const plainClick: ClickChoices = { countIn: 1, clicks: 1, accents: true, on: 1, off: 0 }

/** When everything of a take happens, in seconds of the audio clock. */
export interface Schedule {
  clicks: Click[]
  /** The first note. */
  first: number
  /** The end of the last note. */
  end: number
  /** When a beat is, and which beat it is, in seconds from the first note; each pass may have a tempo of its own. */
  tempo: TempoMap
  countInBeats: number
  pulse: Pulse
}

/** Beats in time, from the first. */
interface TempoMap {
  at: (beat: number) => number
  beatAt: (seconds: number) => number
}

/** The tempo of each pass; beyond the last it goes on as it was. */
function tempoOf({ bpm, beatsPerPass, passes, rise = 0 }: Asked): TempoMap {
  const beat = (pass: number) => 60 / (bpm + pass * rise)
  const starts = [0]
  for (let p = 1; p < passes; p++) starts.push(starts[p - 1]! + beatsPerPass * beat(p - 1))
  return {
    at: (n) => {
      const pass = Math.max(0, Math.min(passes - 1, Math.floor(n / beatsPerPass + 1e-9)))
      return starts[pass]! + (n - pass * beatsPerPass) * beat(pass)
    },
    beatAt: (seconds) => {
      let pass = 0
      while (pass + 1 < passes && seconds >= starts[pass + 1]! - 1e-9) pass++
      return pass * beatsPerPass + (seconds - starts[pass]!) / beat(pass)
    },
  }
}

/** Lays out the count-in, in bars of the metre, and the clicks of all passes from a start on. */
export function scheduleOf(p: Asked, start: number, choices: ClickChoices = plainClick): Schedule {
  const { countIn, accents, ...rest } = choices
  const pulse: Pulse = {
    ...rest,
    bpm: p.bpm,
    beatsPerBar: p.beatsPerBar,
    accents: accents ? [0] : [],
  }
  const secondsPerBeat = 60 / p.bpm
  const countInBeats = countIn * p.beatsPerBar
  const first = start + countInBeats * secondsPerBeat
  const beats = p.beatsPerPass * p.passes
  const tempo = tempoOf(p)
  const clicks: Click[] = []
  for (let beat = -countInBeats; beat < 0; beat++) {
    const weight = beat % p.beatsPerBar === 0 ? 'strong' : 'beat' // by which one hears the bar
    clicks.push({ at: first + beat * secondsPerBeat, weight })
  }
  for (let click = 0; !p.free && click / pulse.clicks < beats - 1e-6; click++) {
    const weight = weightOf(pulse, click)
    if (weight) clicks.push({ at: first + tempo.at(click / pulse.clicks), weight })
  }
  return { clicks, first, end: first + tempo.at(beats), tempo, countInBeats, pulse }
}

/** Where a take is at a moment of the audio clock. */
export interface Moment {
  /** What is left to count before the first note, down to 1. */
  countIn?: number
  /** The pass and the chart note that are due, both from 0. */
  pass?: number
  note?: number
  /** The beat of the bar, from 0, in the count-in too; none in a bar that is not heard. */
  beat?: number
}

export function momentOf(
  s: Schedule,
  noteBeats: number[],
  beatsPerPass: number,
  now: number,
): Moment {
  const { beatsPerBar } = s.pulse
  const beat = s.tempo.beatAt(now - s.first)
  if (beat < 0) {
    const countIn = Math.min(s.countInBeats, Math.ceil(-beat))
    return { countIn, beat: (s.countInBeats - countIn) % beatsPerBar }
  }
  const pass = Math.floor(beat / beatsPerPass)
  const within = beat - pass * beatsPerPass
  let note = 0
  while (note + 1 < noteBeats.length && (noteBeats[note + 1] ?? 0) <= within + 1e-6) note++
  const heard = weightOf(s.pulse, Math.floor(beat + 1e-6) * s.pulse.clicks) !== undefined
  return { pass, note, ...(heard && { beat: Math.floor(within + 1e-6) % beatsPerBar }) }
}
