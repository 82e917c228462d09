import type { Bench, Drill, DrillFile, Family } from '../../api/client'

/** A copy that shares nothing, of something reactive too. */
export function copyOf<T>(value: T): T {
  return JSON.parse(JSON.stringify(value)) as T
}

/** A drill to start from. */
export function freshDrill(bench: Bench): DrillFile {
  const [first] = bench.families
  if (!first) throw new Error('the bench has no families')
  return { drill: { ...copyOf(first.drill), name: 'New drill' }, ladder: copyOf(bench.usual) }
}

/**
 * The drill as another family makes it: everything its own, but the name where
 * it was given by hand.
 */
export function asFamily(drill: Drill, family: Family, families: Family[]): Drill {
  const given = drill.name !== 'New drill' && !families.some((f) => f.drill.name === drill.name)
  const made = copyOf(family.drill)
  return given ? { ...made, name: drill.name } : made
}

/** The family a drill looks most like: the same pattern and, of several, most settings alike. */
export function familyOf(drill: Drill, families: Family[]): string {
  let best: { id: string; alike: number } | undefined
  for (const f of families) {
    if (f.drill.pattern.kind !== drill.pattern.kind) continue
    const alike =
      Number(f.drill.attacks.rule === drill.attacks.rule) +
      Number(Boolean(f.drill.fingering.bendHeld) === Boolean(drill.fingering.bendHeld)) +
      Number(tapped(f.drill) === tapped(drill))
    if (!best || alike > best.alike) best = { id: f.id, alike }
  }
  return best?.id ?? ''
}

function tapped({ pattern }: Drill): boolean {
  return 'topTapped' in pattern && pattern.topTapped
}
