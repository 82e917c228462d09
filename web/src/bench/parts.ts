import type { Drill, DrillPart } from '../api/client'

/** The settings of a part, in the order in which they are told. */
const settings = [
  'title',
  'for',
  'pattern',
  'key',
  'path',
  'attacks',
  'strokes',
  'fingering',
  'mirror',
  'reverse',
] as const

function partOf(drill: Drill | DrillPart): DrillPart {
  return Object.fromEntries(
    settings.filter((s) => drill[s] !== undefined).map((s) => [s, drill[s]]),
  ) as unknown as DrillPart
}

/** The parts of a drill in order, one at least. */
export function partsOf(drill: Drill): DrillPart[] {
  return [partOf(drill), ...(drill.then ?? [])]
}

/** The drill with other parts. */
export function withParts(drill: Drill, [first, ...then]: DrillPart[]): Drill {
  if (!first) return drill
  const { name, rhythm } = drill
  return { name, ...first, rhythm, ...(then.length ? { then } : {}) }
}

/** One part as a drill of its own, with the rhythm of them all. */
export function alone(drill: Drill, index: number): Drill {
  const part = partsOf(drill)[index]
  return part ? withParts(drill, [part]) : drill
}

/** The drill with one part as it was changed alone, and the rhythm as it was changed. */
export function withAlone(drill: Drill, index: number, changed: Drill): Drill {
  const parts = partsOf(drill)
  parts[index] = partOf(changed)
  return withParts({ ...drill, name: changed.name, rhythm: changed.rhythm }, parts)
}

/** What is wrong with one part, by the setting's own name. */
export function faultsOf(faults: { field: string; text: string }[], index: number) {
  const prefix = index ? `then.${index - 1}.` : ''
  return Object.fromEntries(
    faults
      .filter((f) => f.field.startsWith(prefix) && (index > 0 || !f.field.startsWith('then.')))
      .map((f) => [f.field.slice(prefix.length), f.text]),
  )
}
