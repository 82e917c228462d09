import { useStorage } from '@vueuse/core'

import { chosenMicrophone } from './microphones'

/** How late the clicks of this device are in its recordings, s, and when that was found. */
export interface KnownDelay {
  seconds: number
  at: string
}

/** By input; empty is the browser's own choice. */
export const delays = useStorage<Record<string, KnownDelay>>('manudrill delays', {})

/** Of the input that is chosen; none where it was not measured. */
export const delayNow = (): KnownDelay | undefined => delays.value[chosenMicrophone.value]

export function keepDelay(known: KnownDelay | undefined) {
  const others = Object.entries(delays.value).filter(([id]) => id !== chosenMicrophone.value)
  delays.value = Object.fromEntries(known ? [...others, [chosenMicrophone.value, known]] : others)
}

/** So many clicks, and about so far apart, in s: further than any device is late. */
const clicks = 16
const apart = 0.72

/**
 * When it is clicked, in s from the first: a little unevenly where the microphone hears the
 * clicks, so that one is not taken for the next, and evenly where somebody plays on them,
 * after four that count in.
 */
export function clickTimes(played: boolean): { all: number[]; measured: number[] } {
  const at = Array.from({ length: clicks + (played ? 4 : 0) }, (_, i) =>
    played ? i * apart : i * apart + 0.06 * Math.sin(i * i),
  )
  return { all: at, measured: played ? at.slice(4) : at }
}
