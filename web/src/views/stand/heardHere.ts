import type { MeasuredTake, Stand } from '../../api/client'
import type { DeviceVerdict } from '../../audio/ear'
import type { UnsentTake } from '../../audio/unsent'

/** What this device says of a take, laid out as the studio's word on it will be. */
export function heardHere(
  { take }: Pick<UnsentTake, 'take'>,
  { assignment, chart }: Stand,
  { analysis, advice, parts, measured }: DeviceVerdict,
): MeasuredTake {
  return {
    summary: {
      id: take.id,
      assignmentId: assignment.id,
      drillName: assignment.drillName,
      student: assignment.student,
      rung: { bpm: take.bpm, notesPerBeat: take.notesPerBeat ?? chart.notesPerBeat },
      source: take.source ?? 'microphone',
      aside: take.aside,
      soundDropped: false,
      demo: assignment.student.demo,
      recordedAt: take.startedAt,
      handedInAt: take.startedAt,
      state: 'measured',
      measured,
    },
    chart,
    analysis,
    advice,
    parts,
    comments: [],
    corrections: [],
  }
}

/** Whether the studio, which decides, says something else than the device did. */
export function saysOtherwise(studio: MeasuredTake, device: MeasuredTake): boolean {
  const word = ({ summary, analysis, advice }: MeasuredTake) =>
    JSON.stringify([
      summary.measured.decision.step,
      summary.measured.decision.next,
      analysis.notes.map((n) => n.status),
      advice.findings.map((f) => f.about),
    ])
  return word(studio) !== word(device)
}
