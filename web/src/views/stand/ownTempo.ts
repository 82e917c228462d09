import type { Stand } from '../../api/client'
import type { StandCore } from '../../audio/standCore'
import { limits } from '../../api/limits.gen'

/** A tempo that a metronome has. */
export const asTempo = (bpm: number): number =>
  Math.min(limits.Rung.bpm.max, Math.max(limits.Rung.bpm.min, Math.round(bpm)))

/** By how much the tempo is changed at once: as the ladder steps. */
export const stepOf = ({ climbing }: Stand): number => Math.max(1, climbing.ladder.stepBpm || 4)

/**
 * What lies on the stand at a tempo of one's own, beside the ladder: to warm up, or for the
 * pleasure of it.
 */
export async function atTempo(stand: Stand, bpm: number, core: StandCore): Promise<Stand> {
  const { drill, guitar, hand, chart } = stand
  const rung = { bpm: asTempo(bpm), notesPerBeat: chart.notesPerBeat }
  return { ...stand, ...(await core.ask('lay', { drill, guitar, hand, rung })) }
}
