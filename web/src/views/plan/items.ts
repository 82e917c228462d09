import type { Enough, RoutineItem } from '../../api/client'

/** What a new item is before anything is set. */
export const usualEnough: Enough = { by: 'takes', count: 3 }
export const newRest = (): RoutineItem => ({ kind: 'rest', seconds: 30 })
export const newNote = (): RoutineItem => ({ kind: 'note', seconds: 10, text: '' })
export const newDrill = (drill: string): RoutineItem => ({
  kind: 'drill',
  drill,
  enough: { ...usualEnough },
})

/** The same kind of amount in another measure, with a usual number of it. */
export function inMeasure(by: Enough['by']): Enough {
  return { takes: usualEnough, seconds: { by, count: 180 }, clean: { by, count: 3, of: 5 } }[by]
}

/** A list with the item of one place at another. */
export function moved<T>(list: T[], from: number, to: number): T[] {
  if (to < 0 || to >= list.length) return list
  const out = [...list]
  out.splice(to, 0, ...out.splice(from, 1))
  return out
}
