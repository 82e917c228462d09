import { useStorage } from '@vueuse/core'

import type { RunEvent } from '../../audio/standCore'

/** What a key does while a routine runs; go starts what waits and holds what runs. */
export type Deed = 'go' | RunEvent['key']

const usual: Record<string, Deed> = {
  ' ': 'go',
  Enter: 'go',
  Escape: 'hold',
  r: 'repeat',
  n: 'next',
  ArrowRight: 'skip',
  ArrowLeft: 'back',
  t: 'tired',
  h: 'hurts',
}

/** Keys that somebody has taught, as of a pedal, which is a keyboard. */
export const taught = useStorage<Record<string, Deed>>('manudrill keys', {})

export function keyOf(key: string): Deed | undefined {
  const plain = key.length === 1 ? key.toLowerCase() : key
  return taught.value[key] ?? taught.value[plain] ?? usual[plain]
}
