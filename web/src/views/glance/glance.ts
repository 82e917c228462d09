import type { Finding, GlanceDrill, GlanceStudent, Need } from '../../api/client'

/** Why somebody wants to be looked at, in a word; and of whom nothing needs to be said. */
export type Kind = Need['why'] | 'well'

export const kindWords: Record<Kind, string> = {
  pain: 'in pain',
  slipping: 'slipping',
  stuck: 'stuck',
  away: 'away',
  uneven: 'uneven',
  ready: 'ready for more',
  untouched: 'not begun',
  well: 'others',
}

export const kinds = Object.keys(kindWords) as Kind[]

/** The word a student is filed under: that of the first reason. */
export function kindOf(s: GlanceStudent): Kind {
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

/** By what students are put in order. */
export type Order = 'need' | 'name' | 'days' | 'gate' | 'pair'

const most = (s: GlanceStudent, of: (d: GlanceDrill) => number | undefined) =>
  Math.max(-1, ...s.drills.map((d) => of(d) ?? -1))

/** Students in an order: those whom it matters most for first. By need is as they came. */
export function ordered(students: GlanceStudent[], by: Order): GlanceStudent[] {
  if (by === 'need') return students
  const worst = (of: (s: GlanceStudent) => number) =>
    students.toSorted((a, b) => of(b) - of(a) || a.person.name.localeCompare(b.person.name))
  switch (by) {
    case 'name':
      return students.toSorted((a, b) => a.person.name.localeCompare(b.person.name))
    case 'days':
      return worst((s) => -s.days.length)
    case 'gate':
      return worst((s) => most(s, (d) => d.state?.ofGate))
    case 'pair':
      return worst((s) => most(s, (d) => d.state?.weakest?.lateMs))
  }
}

/** Those whose name or drills have all words in them, filed under a kind where given. */
export function filtered(
  students: GlanceStudent[],
  words: string,
  kind: Kind | undefined,
): GlanceStudent[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean)
  return students.filter((s) => {
    const text = [s.person.name, ...s.drills.map((d) => d.name)].join(' ').toLowerCase()
    return wanted.every((w) => text.includes(w)) && (!kind || kindOf(s) === kind)
  })
}

/** How many students are filed under each kind, those with any. */
export function counted(students: GlanceStudent[]): { kind: Kind; n: number }[] {
  return kinds
    .map((kind) => ({ kind, n: students.filter((s) => kindOf(s) === kind).length }))
    .filter(({ n }) => n > 0)
}

/** The last days up to today, and whether something was played on each. */
export function lastDays(s: GlanceStudent, today: string, n = 14): boolean[] {
  const played = new Set(s.days.map((d) => d.slice(0, 10)))
  const end = Date.parse(today)
  return Array.from({ length: n }, (_, i) =>
    played.has(new Date(end - (n - 1 - i) * 86_400_000).toISOString().slice(0, 10)),
  )
}
