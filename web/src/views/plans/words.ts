import type { PlanDay, PlanLine, SavedPlan } from '../../api/client'

/** "2½ min", "45 s". */
export function briefly(seconds: number): string {
  if (seconds < 60) return `${seconds} s`
  const halves = Math.round(seconds / 30)
  return `${halves % 2 ? `${(halves - 1) / 2 || ''}½` : halves / 2} min`
}

export const lineName = (l: PlanLine): string =>
  l.kind === 'rest' ? 'rest' : l.kind === 'warmUp' ? `warm-up: ${l.name}` : (l.name ?? 'a drill')

/** How much of what was planned for a day was played: of how many drills something. */
export function happened(d: PlanDay, played: SavedPlan['played']) {
  const wanted = new Set(d.lines.filter((l) => l.kind === 'drill').map((l) => l.drill))
  const on = played.filter((p) => p.date.slice(0, 10) === d.date.slice(0, 10))
  const done = new Set(on.map((p) => p.drillId).filter((id) => wanted.has(id)))
  return { wanted: wanted.size, done: done.size, any: on.length > 0, drills: done }
}

export const weekdays = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']
