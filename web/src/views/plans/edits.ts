import type { Plan, PlanDay, PlanLine } from '../../api/client'

/** Where a line is in a plan. */
export interface Slot {
  week: number
  day: number
  line: number
}

/** A plan with one of its days changed by hand: from then on the rules leave it alone. */
function withDay(plan: Plan, week: number, day: number, change: (d: PlanDay) => PlanDay): Plan {
  return {
    ...plan,
    weeks: plan.weeks.map((w, i) =>
      i !== week
        ? w
        : { ...w, days: w.days.map((d, j) => (j === day ? { ...change(d), byHand: true } : d)) },
    ),
  }
}

export const lineAt = (plan: Plan, at: Slot): PlanLine | undefined =>
  plan.weeks[at.week]?.days[at.day]?.lines[at.line]

/** Without a line, and without the rest that would stand first, last or beside another. */
export function removed(plan: Plan, at: Slot): Plan {
  return withDay(plan, at.week, at.day, (d) => ({
    ...d,
    lines: tidy(d.lines.filter((_, i) => i !== at.line)),
  }))
}

function tidy(lines: PlanLine[]): PlanLine[] {
  return lines.filter(
    (l, i) => l.kind !== 'rest' || (i > 0 && i < lines.length - 1 && lines[i - 1]?.kind !== 'rest'),
  )
}

/** With a line changed, as its minutes or its position. */
export function changed(plan: Plan, at: Slot, change: Partial<PlanLine>): Plan {
  return withDay(plan, at.week, at.day, (d) => ({
    ...d,
    lines: d.lines.map((l, i) => (i === at.line ? { ...l, ...change } : l)),
  }))
}

/** With a line put into a day, at the end or before another; days of rest take it too. */
export function added(plan: Plan, week: number, day: number, line: PlanLine, at?: number): Plan {
  return withDay(plan, week, day, (d) => {
    const lines = [...d.lines]
    lines.splice(at ?? lines.length, 0, line)
    return { ...d, lines, reason: undefined }
  })
}

/** With a line of one day moved into another, or to another place of its own. */
export function moved(
  plan: Plan,
  from: Slot,
  to: { week: number; day: number; line?: number },
): Plan {
  const line = lineAt(plan, from)
  if (!line || !plan.weeks[to.week]?.days[to.day]) return plan
  if (from.week === to.week && from.day === to.day) {
    if (to.line === undefined || to.line === from.line) return plan
    return withDay(plan, from.week, from.day, (d) => {
      const lines = d.lines.filter((_, i) => i !== from.line)
      lines.splice(to.line!, 0, line)
      return { ...d, lines }
    })
  }
  return added(removed(plan, from), to.week, to.day, line, to.line)
}

/** With the days of a week as those of the one before: what a teacher does who repeats it. */
export function copied(plan: Plan, from: number, to: number): Plan {
  const source = plan.weeks[from]
  if (!source || !plan.weeks[to]) return plan
  return source.days.reduce(
    (p, d, day) => withDay(p, to, day, (was) => ({ ...d, date: was.date })),
    plan,
  )
}

/** With a day given back to the rules. */
export function released(plan: Plan, week: number, day: number): Plan {
  const next = withDay(plan, week, day, (d) => d)
  delete next.weeks[week]?.days[day]?.byHand
  return next
}

/** The place a number of days on, where there is one. */
export function daysOn(
  plan: Plan,
  at: Slot,
  by: number,
): { week: number; day: number } | undefined {
  const n = at.week * 7 + at.day + by
  const to = { week: Math.floor(n / 7), day: ((n % 7) + 7) % 7 }
  return plan.weeks[to.week]?.days[to.day] ? to : undefined
}

/** How long a day is, in seconds. */
export const lasts = (d: PlanDay): number => d.lines.reduce((sum, l) => sum + l.seconds, 0)
