import type { Stand } from '../../api/client'
import type { DeviceVerdict } from '../../audio/ear'
import type { StandCore } from '../../audio/standCore'

/** What lies on the stand after a take, as the ladder of this device says. */
export async function climbed(
  was: Stand,
  { analysis, climbing, cues, measured }: DeviceVerdict,
  core: StandCore,
): Promise<Stand> {
  if (analysis.foreign) return was
  const { drill, guitar, hand } = was
  const { step, next: rung } = measured.decision
  const laid = step === 'hold' ? {} : await core.ask('lay', { drill, guitar, hand, rung })
  return { ...was, ...laid, climbing, cues, assignment: { ...was.assignment, rung } }
}
