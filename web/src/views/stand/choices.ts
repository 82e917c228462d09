import { useStorage } from '@vueuse/core'

import type { ClickVoice } from '../../audio/metronome'
import { plainClick, type ClickChoices } from '../../audio/schedule'

/** What somebody has chosen for the stand, on this device. */

/** The music as tablature, on the staff, on the neck, or tab and neck. */
export const shown = useStorage<'tab' | 'staff' | 'neck' | 'both'>('manudrill stand shows', 'tab')

/** The MIDI instrument that is played. */
export const midiDevice = useStorage('manudrill midi', 'simulated')

/** Whether notes are marked while they are played. */
export const live = useStorage('manudrill marks', true)

/** How long a verdict is read before the next take, in s. */
export const pause = useStorage('manudrill pause', 5)

/** By how many bpm each pass of a take is faster than the one before, when played drill by drill. */
export const rise = useStorage('manudrill rise', 0)

/** Whether a routine begins with a take to warm up. */
export const warmUp = useStorage('manudrill warm up', false)

/** Whether the verdict is spoken. */
export const spoken = useStorage('manudrill spoken', false)

/** How the click goes, and what it sounds like. */
export const click = useStorage<ClickChoices>('manudrill click', { ...plainClick }, undefined, {
  mergeDefaults: true,
})
export const voice = useStorage<Omit<ClickVoice, 'volume'>>(
  'manudrill click sound',
  { sound: 'usual', ears: 'both' },
  undefined,
  { mergeDefaults: true },
)

/** How loud the click is, of 100. */
export const volume = useStorage('manudrill click volume', 60)
