/**
 * Where a cell of one's own lies as it was put, so that a note that is clicked stays where it
 * was clicked before any answer comes. The core has the same rule; both are held to the cases
 * of core/drill/testdata/homes.json.
 */
export function homeOf(notes: { string: number; fret: number }[]) {
  const frets = notes.map((n) => n.fret).filter((f) => f > 0)
  const used = notes.map((n) => n.string)
  const [thick, thin] = [Math.max(...used), Math.min(...used)]
  return {
    position: frets.length ? Math.min(...frets) : 1,
    strings: Array.from({ length: thick - thin + 1 }, (_, i) => thick - i),
  }
}
