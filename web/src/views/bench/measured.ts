import type { Pattern } from '../../api/client'

/**
 * A pattern with its places said as frets of the neck, or as distances from the position,
 * so that nothing that is played changes.
 */
export function measured(pattern: Pattern, atFrets: boolean, position: number): Pattern {
  if (Boolean('atFrets' in pattern && pattern.atFrets) === atFrets) return pattern
  const by = atFrets ? position : -position
  const all = (list: number[]) => list.map((n) => n + by)
  const said = { atFrets: atFrets || undefined }
  switch (pattern.kind) {
    case 'tapping':
      return { ...pattern, ...said, tapAt: pattern.tapAt + by }
    case 'bentTaps':
      return { ...pattern, ...said, taps: all(pattern.taps) }
    case 'twoHands':
      return { ...pattern, ...said, fretted: all(pattern.fretted), tapped: all(pattern.tapped) }
    case 'twoStringShape':
      return { ...pattern, ...said, lower: all(pattern.lower), higher: all(pattern.higher) }
    case 'chordShape': {
      const moved = <T extends { fret: number }>(held: T[]) =>
        held.map((h) => ({ ...h, fret: h.fret + by }))
      return { ...pattern, ...said, shape: moved(pattern.shape), leaps: moved(pattern.leaps) }
    }
    default:
      return pattern
  }
}
