import { useStorage } from '@vueuse/core'

import type { RunEvent } from '../../audio/standCore'

/**
 * What a key does while a routine runs; go starts what waits and holds what runs, hear lets
 * the drill be heard, faster and slower set a tempo of one's own.
 */
export type Deed = 'go' | 'hear' | 'faster' | 'slower' | RunEvent['key']

const usual: Record<string, Deed> = {
  ' ': 'go',
  Enter: 'go',
  Escape: 'hold',
  r: 'repeat',
  n: 'next',
  ArrowRight: 'skip',
  ArrowLeft: 'back',
  ArrowUp: 'faster',
  ArrowDown: 'slower',
  t: 'tired',
  h: 'hurts',
  l: 'hear',
}

/** Keys that somebody has taught, as of a pedal, which is a keyboard. */
export const taught = useStorage<Record<string, Deed>>('manudrill keys', {})

export function keyOf(key: string): Deed | undefined {
  const plain = key.length === 1 ? key.toLowerCase() : key
  return taught.value[key] ?? taught.value[plain] ?? usual[plain]
}
