import type { Advice, Analysis, Correction, CourseEvent } from '../api/client'
import { eventWords } from './notewords'

/** What findings are about, where they can be said not to be so. */
const findings: Record<string, string> = {
  late: 'a finger comes late',
  uneven: 'a finger is unsure',
  hurried: 'a finger is hurried',
  crossing: 'string changes come late',
  shift: 'shifts come late',
  way: 'one way is less even',
  drift: 'the tempo drifts',
  click: 'beside the click',
  source: 'beat or fingers waver',
  slurs: 'slurs are soft',
  soft: 'a pair is soft',
  gaps: 'notes break off',
  ringing: 'strings ring on',
  bend: 'strings are dragged',
  tires: 'the hand tires',
  tuning: 'out of tune',
  yardstick: 'slurred against picked',
  part: 'a part is less even',
}

/** What a kind of thing that was told is called. */
export function kindWords({ of, kind }: Pick<Correction, 'of' | 'kind'>): string {
  switch (of) {
    case 'note':
      return kind === 'missed' ? 'a missed note' : 'a wrong note'
    case 'extra':
      return 'an extra note'
    case 'event':
      return eventKinds[kind as CourseEvent['kind']] ?? kind
    case 'finding':
      return findings[kind] ?? kind
  }
}

const eventKinds: Record<CourseEvent['kind'], string> = {
  hesitation: 'a hesitation',
  stop: 'a stop',
  restart: 'a new beginning',
  replay: 'going back',
  skip: 'leaving notes out',
  double: 'a note struck twice',
  correction: 'a corrected note',
  left: 'leaving off',
  swing: 'swing',
  transposed: 'other frets',
  offBeat: 'beside the click',
  otherTempo: 'another tempo',
}

/** A thing that was told, and how it is said that it was not so. */
export interface Told {
  text: string
  what: Correction
}

/** All that is told of a take and can be said not to be so: events, notes, what stands out. */
export function toldOf(analysis: Analysis, advice: Advice, size: number): Told[] {
  const events = analysis.course.events
    .filter((e) => e.kind !== 'otherTempo')
    .map((e) => ({
      text: `${eventWords(e, size)}, ${e.kind === 'correction' ? '' : 'before '}${numberWords(e.before, size, analysis.notes.length / size)}`,
      what: { of: 'event' as const, kind: e.kind, index: e.before },
    }))
  const notes = advice.mistakes.map((m) => ({
    text: m.text,
    what: m.status
      ? { of: 'note' as const, kind: m.status, index: m.index }
      : { of: 'extra' as const, kind: 'extra', t: m.t },
  }))
  const causes = advice.findings
    .filter((f) => f.about in findings)
    .map((f) => ({ text: f.text, what: { of: 'finding' as const, kind: f.about } }))
  return [...events, ...notes, ...causes]
}

/** A note, as it is named elsewhere: by pass where there are several. */
function numberWords(index: number, size: number, passes: number): string {
  const note = `note ${(index % size) + 1}`
  return passes > 1 ? `pass ${Math.floor(index / size) + 1}, ${note}` : note
}

/** What was said not to be so, in a few words; there are so many passes of so many notes. */
export function deniedWords(c: Correction, size: number, passes: number): string {
  const at =
    c.of === 'note' || c.of === 'event' ? `, ${numberWords(c.index ?? 0, size, passes)}` : ''
  return kindWords(c) + at
}
