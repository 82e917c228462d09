import type { DrillFile, Pattern } from '../../api/client'

/** A copy that shares nothing, of a reactive drill too. */
export function copyOf(file: DrillFile): DrillFile {
  return JSON.parse(JSON.stringify(file)) as DrillFile
}

/** A drill to start from. */
export function freshDrill(): DrillFile {
  return {
    drill: {
      name: 'New drill',
      pattern: freshSlurs(),
      position: 7,
      strings: [6, 5, 4, 3, 2, 1],
      thereAndBack: true,
      repeats: 1,
      notesPerBeat: 2,
      passes: 2,
    },
    ladder: {
      startBpm: 60,
      stepBpm: 4,
      targetBpm: 120,
      gate: { rightPercent: 95, spreadPercent: 7, levelSpreadDb: 4, passesInARow: 2 },
    },
  }
}

export function freshSlurs(): Extract<Pattern, { kind: 'slurCombinations' }> {
  return { kind: 'slurCombinations', combinations: [[1, 2]], slur: 'hammer' }
}

export function freshFingers(): Extract<Pattern, { kind: 'fingerPerFret' }> {
  return { kind: 'fingerPerFret', order: [1, 2, 3, 4] }
}

/** The combinations of two, three and four fingers, in graded order. */
export const combinations: { of: string; all: number[][] }[] = [
  {
    of: '2 fingers',
    all: [
      [1, 2],
      [2, 3],
      [3, 4],
      [1, 3],
      [1, 4],
      [2, 4],
    ],
  },
  {
    of: '3 fingers',
    all: [
      [1, 2, 3],
      [2, 3, 4],
      [1, 2, 4],
      [1, 3, 4],
    ],
  },
  { of: '4 fingers', all: [[1, 2, 3, 4]] },
]

/** The 24 orders of four fingers. */
export function orders(fingers: number[] = [1, 2, 3, 4]): number[][] {
  if (fingers.length < 2) return [fingers]
  return fingers.flatMap((f) => orders(fingers.filter((g) => g !== f)).map((rest) => [f, ...rest]))
}
