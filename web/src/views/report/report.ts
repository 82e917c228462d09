import type { Overview } from '../../api/client'

const short = (v: number) => Number(v.toFixed(1))

/** What a report tells of some weeks: sums and first and last figures, no more. */
export function reportOf(o: Overview) {
  const days = o.weeks.flatMap((w) => w.days)
  const last = o.weeks.at(-1)
  return {
    from: o.weeks[0]?.begins ?? '',
    to: last ? new Date(Date.parse(last.begins) + 6 * 86_400_000).toISOString() : '',
    days: days.length,
    allDays: 7 * o.weeks.length,
    seconds: days.reduce((sum, d) => sum + d.seconds, 0),
    drills: o.drills
      .filter((d) => d.points.length)
      .map((d) => ({
        name: d.name,
        unit: d.unit,
        from: short(d.points[0]!.speed),
        to: short(d.points.at(-1)!.speed),
        target: short(d.target),
        takes: d.points.reduce((sum, p) => sum + p.counting, 0),
        clean: d.points.reduce((sum, p) => sum + p.clean, 0),
      })),
    pairs: o.groups.flatMap((g) => (g.text ? [g.text] : [])),
  }
}
