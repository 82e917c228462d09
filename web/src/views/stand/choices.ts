import { useStorage } from '@vueuse/core'

/** What somebody has chosen for the stand, on this device. */

/** The music as tablature, on the neck, or both. */
export const shown = useStorage<'tab' | 'neck' | 'both'>('manudrill stand shows', 'tab')

/** Whether notes are marked while they are played. */
export const live = useStorage('manudrill marks', true)

/** How long a verdict is read before the next take, in s. */
export const pause = useStorage('manudrill pause', 5)

/** Whether the verdict is spoken. */
export const spoken = useStorage('manudrill spoken', false)

/** How loud the click is, of 100. */
export const volume = useStorage('manudrill click volume', 60)
