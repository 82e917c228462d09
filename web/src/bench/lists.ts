/** Lists of numbers as they are typed: "1 2 4", "1-2-4"; o is the open string. */
export function readList(text: string): number[] {
  return text
    .replaceAll(/o/gi, ' o ')
    .split(/[\s,;-]+/)
    .filter((part) => part !== '')
    .map((part) => (part === 'o' ? -1 : Number(part)))
    .filter((n) => Number.isInteger(n))
}

export function writeList(numbers: number[]): string {
  return numbers.map((n) => (n < 0 ? 'o' : String(n))).join(' ')
}

/** Several lists: "4 3, 3 2". */
export function readLists(text: string): number[][] {
  return text
    .split(/[,;]+/)
    .map(readList)
    .filter((list) => list.length > 0)
}

export function writeLists(lists: number[][]): string {
  return lists.map(writeList).join(', ')
}

/** Pairs: "3:2 2:1"; a sign may stand before each number. */
export function readPairs(text: string): [number, number][] {
  return [...text.matchAll(/([-+−]?\d+)\s*[:/]\s*([-+−]?\d+)/g)].map(([, a, b]) => [
    Number(a?.replace('−', '-')),
    Number(b?.replace('−', '-')),
  ])
}

export function writePairs(pairs: [number, number][]): string {
  return pairs.map(([a, b]) => `${a}:${b}`).join(' ')
}
