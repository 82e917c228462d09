/** What was read of a text, and the rest of it, from where reading stopped. */
export interface Read<T> {
  value: T
  rest: string
}

/** Reads one piece after another as long as the pattern, which is sticky, fits. */
function scan<T>(text: string, piece: RegExp, make: (found: RegExpExecArray) => T): Read<T[]> {
  const value: T[] = []
  let at = 0
  for (;;) {
    piece.lastIndex = at
    const found = piece.exec(text)
    if (!found) break
    value.push(make(found))
    at = piece.lastIndex
  }
  return { value, rest: text.slice(at).replace(/^[\s,;-]+/, '') }
}

const number = (text = '') => Number(text.replace(/[−–]/, '-'))

/** A list of numbers: "1 2 4", "1-2-4"; o is the open string. */
export function readList(text: string): Read<number[]> {
  return scan(text, /[\s,;-]*(o|\d+)/iy, ([, n]) => (n?.toLowerCase() === 'o' ? -1 : number(n)))
}

export function writeList(numbers: number[] = []): string {
  return numbers.map((n) => (n < 0 ? 'o' : String(n))).join(' ')
}

/** A list of frets, which may lie below where they are counted from: "7-8-10", "-1 0 2". */
export function readFrets(text: string): Read<number[]> {
  return scan(text, /[\s,;]*(?:(?<=\d)-)?([-−–]?\d+)/y, ([, n]) => number(n))
}

export function writeFrets(frets: number[] = []): string {
  return frets.join(' ')
}

/** Several lists: "4 3, 3 2". */
export function readLists(text: string): Read<number[][]> {
  const value: number[][] = []
  for (const part of text.split(/([,;]+)/).filter((_, i) => i % 2 === 0)) {
    const read = readList(part)
    if (read.value.length) value.push(read.value)
    if (read.rest) return { value, rest: read.rest + text.slice(text.indexOf(part) + part.length) }
  }
  return { value, rest: '' }
}

export function writeLists(lists: number[][]): string {
  return lists.map(writeList).join(', ')
}

/** Finger combinations in the order played: "21 31 41", "2-1 3-1". */
export function readCombinations(text: string): Read<number[][]> {
  return scan(text, /[\s,;]*(\d(?:-?\d)*)/y, ([, c]) =>
    [...(c ?? '').replaceAll('-', '')].map(Number),
  )
}

export function writeCombinations(combinations: number[][]): string {
  return combinations.map((c) => c.join('')).join(' ')
}

/** Pairs: "3:2 2:1"; a sign may stand before each number. */
export function readPairs(text: string): Read<[number, number][]> {
  return scan(text, /[\s,;]*([-+−]?\d+)\s*[:/]\s*([-+−]?\d+)/y, ([, a, b]) => [
    number(a),
    number(b),
  ])
}

export function writePairs(pairs: [number, number][]): string {
  return pairs.map(([a, b]) => `${a}:${b}`).join(' ')
}
