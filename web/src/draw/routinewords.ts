import type { Enough, RoutineItem, SavedRoutine } from '../api/client'
import { count, lasting } from './words'

/** When a drill has been practised enough. */
export function enoughWords(e: Enough): string {
  switch (e.by) {
    case 'takes':
      return count(e.count, 'take')
    case 'seconds':
      return lasting(e.count)
    case 'clean':
      return `until ${e.count} of the last ${e.of ?? 0} are clean`
  }
}

/** How much of an item there is. */
export function amountWords(item: RoutineItem): string {
  return item.enough ? enoughWords(item.enough) : lasting(item.seconds ?? 0)
}

/** What an item is called; a drill that the student no longer has is none. */
export function itemName(item: RoutineItem, of: Pick<SavedRoutine, 'drills'>): string {
  if (item.kind === 'rest') return 'Rest'
  if (item.kind === 'note') return item.text ?? ''
  const name = of.drills.find((d) => d.drillId === item.drill)?.name
  if (!name) return 'A drill that was withdrawn'
  return item.position ? `${name}, position ${item.position}` : name
}

/** About how long something lasts, in whole minutes. */
export const aboutMinutes = (seconds: number): string =>
  `about ${Math.max(1, Math.round(seconds / 60))} min`
