import type { Rung } from '../../api/client'

/** Rungs as they are typed: tempi, each with its notes per beat where these are not given for all. */
export function readRungs(text: string, notesPerBeat: number): Rung[] | undefined {
  const rungs: Rung[] = []
  for (const word of text.trim().split(/[\s,;]+/)) {
    const m = /^(\d+(?:\.\d+)?)(?:[x×*](\d+))?$/i.exec(word)
    if (!m) return undefined
    rungs.push({ bpm: Number(m[1]), notesPerBeat: m[2] ? Number(m[2]) : notesPerBeat })
  }
  return rungs
}

/** The same, written out. */
export function writeRungs(rungs: Rung[]): string {
  const mixed = rungs.some((r) => r.notesPerBeat !== rungs[0]?.notesPerBeat)
  return rungs.map((r) => (mixed ? `${r.bpm}x${r.notesPerBeat}` : `${r.bpm}`)).join(' ')
}
