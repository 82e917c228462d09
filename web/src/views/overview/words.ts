import type { Attack, OverviewGroup, State } from '../../api/client'
import { attackNames } from '../../draw/words'

/** How often earlier forecasts held; nothing where there were too few to say. */
export function backtestWords(b: State['backtest']): string {
  if (b.of < 5) return ''
  return `Forecasts made like that held in ${b.held} of ${b.of} cases on this record.`
}

/** What notes have in common, in a word or two. */
export function groupName(g: OverviewGroup): string {
  switch (g.kind) {
    case 'pair':
      return `${g.from === 0 ? 'open' : g.from}→${g.to === 0 ? 'open' : g.to} ${attackNames[g.attack as Attack]}`
    case 'attack':
      return attackNames[g.attack as Attack]
    case 'string':
      return `string ${g.number}`
    case 'position':
      return `position ${g.number}`
  }
}

export const kindNames: Record<OverviewGroup['kind'], string> = {
  pair: 'finger pair',
  attack: 'technique',
  string: 'string',
  position: 'position',
}

/** "1 h 20 min", "12 min". */
export function minutes(seconds: number): string {
  const all = Math.round(seconds / 60)
  return all < 60 ? `${all} min` : `${Math.floor(all / 60)} h ${all % 60} min`
}
