import type { Finding, GlanceStudent, GlanceWhy } from '../../api/client'

/** Why somebody wants to be looked at, in a word; and of whom nothing needs to be said. */
export const kindWords: Record<GlanceWhy, string> = {
  pain: 'in pain',
  slipping: 'slipping',
  stuck: 'stuck',
  away: 'away',
  uneven: 'uneven',
  ready: 'ready for more',
  untouched: 'not begun',
  well: 'others',
}

/** The word a student is filed under: that of the first reason. */
export function kindOf(s: GlanceStudent): GlanceWhy {
  return s.needs[0]?.why ?? 'well'
}

/** What happens with a drill, as an arrow: told apart by its direction, not by a colour. */
export const arrows: Record<Finding['kind'], string> = {
  untouched: '·',
  away: '·',
  reached: '✓',
  few: '·',
  back: '↺',
  rising: '↗',
  slipping: '↘',
  stuck: '→',
  unclear: '∿',
}

/** Students with those of a further page, each once: whoever has moved meanwhile stays. */
export function joined(shown: GlanceStudent[], more: GlanceStudent[]): GlanceStudent[] {
  const known = new Set(shown.map((s) => s.person.id))
  return [...shown, ...more.filter((s) => !known.has(s.person.id))]
}

/** The last days up to today, and whether something was played on each. */
export function lastDays(s: GlanceStudent, today: string, n = 14): boolean[] {
  const played = new Set(s.days.map((d) => d.slice(0, 10)))
  const end = Date.parse(today)
  return Array.from({ length: n }, (_, i) =>
    played.has(new Date(end - (n - 1 - i) * 86_400_000).toISOString().slice(0, 10)),
  )
}
