import type { ReachStep } from '../../api/client'

/** Where a test of the reach is: at a place of a step, with what was found before. */
export interface ReachTest {
  step: number
  place: number
  hand: Record<string, number>
}

export const begun = (): ReachTest => ({ step: 0, place: 0, hand: {} })

/** Whole mm, and no more than was comfortable. */
const found = (mm: number) => Math.floor(mm)

/**
 * Comfortable: on to the next place, which is wider; at the last place that is the reach.
 * Too wide: the place before was the reach. Too wide at the first place is the natural
 * distance of one finger a fret there, for each step asks for one fret more.
 */
export function answered(steps: ReachStep[], at: ReachTest, comfortable: boolean): ReachTest {
  const s = steps[at.step]
  const place = s?.places[at.place]
  if (!s || !place) return at
  if (comfortable && s.places[at.place + 1]) return { ...at, place: at.place + 1 }
  const before = s.places[at.place - 1]
  const mm = comfortable ? place.mm : (before?.mm ?? (place.mm * (s.frets - 1)) / s.frets)
  return { step: at.step + 1, place: 0, hand: { ...at.hand, [s.pair]: found(mm) } }
}
