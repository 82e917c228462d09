import type { DrillFile } from '../api/client'
import { meaning } from './history'

/** The parts of a drill as they are called on the bench. */
const parts: Record<string, string> = {
  name: 'name',
  pattern: 'pattern',
  key: 'key',
  path: 'place and path',
  attacks: 'attacks',
  rhythm: 'rhythm',
  strokes: 'strokes',
  fingering: 'fingering',
  mirror: 'mirrored',
  reverse: 'reversed',
}

/** In which parts two drills differ. */
export function differences(a: DrillFile, b: DrillFile): string[] {
  const of = (f: DrillFile) => f.drill as unknown as Record<string, unknown>
  const differ = (x: unknown, y: unknown) => meaning(x ?? null) !== meaning(y ?? null)
  const names = Object.keys(parts).filter((p) => differ(of(a)[p], of(b)[p]))
  return [...names.map((p) => parts[p]!), ...(differ(a.ladder, b.ladder) ? ['tempo ladder'] : [])]
}
