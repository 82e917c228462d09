import { useStorage } from '@vueuse/core'
import { watchEffect } from 'vue'

/** How the pages look on this device. */
export const light = useStorage<'place' | 'light' | 'dark'>('manudrill light', 'place')
export const typeSize = useStorage<'usual' | 'large' | 'larger'>('manudrill type size', 'usual')
/** How notes are called. */
export type Naming = 'english' | 'german' | 'solfege'
export const naming = useStorage<Naming>('manudrill note names', 'english')

const scales = { usual: '1', large: '1.15', larger: '1.3' }

/** Keeps the document in the light of the place and the size of type that were chosen. */
export function usePreferences(atStand: () => boolean): void {
  watchEffect(() => {
    const dim = light.value === 'dark' || (light.value === 'place' && atStand())
    document.documentElement.classList.toggle('dim', dim)
    document.documentElement.style.setProperty('--scale', scales[typeSize.value] ?? '1')
  })
}
