import type { HandRecord, HandReport } from '../api/client'

/** The Monday, in UTC, of the week that a moment is in. */
export function mondayOf(at: Date): number {
  const day = Date.UTC(at.getUTCFullYear(), at.getUTCMonth(), at.getUTCDate())
  return day - ((at.getUTCDay() + 6) % 7) * 86_400_000
}

/** How long was slurred this week and the one before; empty where nothing was. */
export function weekWords(weeks: HandRecord['weeks'], now: Date): string {
  const minutes = (begins: number) => {
    const week = weeks.find((w) => Date.parse(w.begins) === begins)
    return Math.round((week?.slurSeconds ?? 0) / 60)
  }
  const monday = mondayOf(now)
  const [here, before] = [minutes(monday), minutes(monday - 7 * 86_400_000)]
  if (!here && !before) return ''
  return `Slurred this week: ${here} min; the week before: ${before} min.`
}

/** A report in a few words. */
export function reportWords({ kind, effort, aches = [] }: HandReport): string {
  const where = aches.length ? `: ${aches.join(', ')}` : ''
  if (kind === 'after') return `effort ${effort} of 10${where ? `, aches${where}` : ''}`
  return (kind === 'hurts' ? 'it hurts' : 'tired') + where
}
