import type { Analysis } from '../api/client'
import { attackNames } from '../draw/words'

/** The weakest transition in a sentence. */
export function weakestWords(a: Analysis): string {
  const t = a.transitions[0]
  if (!t) return ''
  const fingers = `From finger ${t.from} to ${t.to} (${attackNames[t.attack]})`
  const late = Math.round(t.meanMs)
  if (late > a.timing.audibleMs) return `${fingers} the note comes ${late} ms late on average.`
  if (t.spreadMs > 2 * a.timing.audibleMs)
    return `${fingers} the interval varies most, by ${t.spreadMs.toFixed(0)} ms.`
  return 'No finger pair stands out: all transitions are about equally even.'
}
