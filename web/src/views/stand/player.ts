import type { Player } from '../../api/client'

/** What can be set of the simulated player; the rest follows. */
export interface PlayerSettings {
  unevenMs: number
  weak: string // "3-4", or empty for none
  weakLateMs: number
  miss: number
  wrong: number
  extra: number
}

export const steadyPlayer: PlayerSettings = {
  unevenMs: 8,
  weak: '',
  weakLateMs: 20,
  miss: 0,
  wrong: 0,
  extra: 0,
}

export const weakPairs = [
  '1-2',
  '2-1',
  '2-3',
  '3-2',
  '3-4',
  '4-3',
  '1-3',
  '3-1',
  '2-4',
  '4-2',
  '1-4',
  '4-1',
]

/** The whole player: unevenness is shared between its clock and its hand. */
export function playerOf(s: PlayerSettings, seed: number): Player {
  const [from, to] = s.weak.split('-').map(Number)
  return {
    seed,
    clockMs: s.unevenMs * 0.7,
    motorMs: s.unevenMs * 0.6,
    levelSdDb: 1,
    slurDropDb: 2,
    weak: from && to ? { from, to, lateMs: s.weakLateMs, dropDb: 3 } : undefined,
    miss: s.miss,
    wrong: s.wrong,
    extra: s.extra,
    noiseDb: -66,
  }
}
