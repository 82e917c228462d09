import type { Pattern } from '../../api/client'
import {
  readFrets,
  readList,
  readPairs,
  writeFrets,
  writeList,
  writePairs,
  type Read,
} from '../../bench/lists'
import { orders, shapeOrders, slurs, tapOrders } from './choices'

type Choices = readonly { label: string; value: string; about?: string }[]

/** How one part of a pattern is set on the bench. */
export type Field =
  | {
      as: 'number'
      part: string
      name: string
      label?: string
      /** What it is called where it is a fret of the neck. */
      atFret?: string
      min: number
      max: number
    }
  | { as: 'choice'; part: string; name: string; stacked?: boolean; options: Choices }
  | { as: 'switch'; part: string; name: string }
  | {
      as: 'text'
      part: string
      name: string
      hint: string
      /** What it is called where its numbers are frets of the neck. */
      atFrets?: string
      read: (text: string) => Read<unknown>
      write: (value: never) => string
    }

function number(part: string, name: string, min: number, max: number, label?: string): Field {
  return { as: 'number', part, name, min, max, label }
}
function list(part: string, name: string, hint: string): Field {
  return { as: 'text', part, name, hint, read: readList, write: writeList }
}
/** A list of frets; where they are frets of the neck, its hint says so. */
function frets(part: string, name: string, hint: string, atFrets = 'frets'): Field {
  return { as: 'text', part, name, hint, atFrets, read: readFrets, write: writeFrets }
}
/** A list of two numbers each, kept under two names; the second may be counted from 1. */
function pairs(part: string, name: string, hint: string, a: string, b: string, from1 = ''): Field {
  const shift = (key: string) => (key === from1 ? 1 : 0)
  return {
    as: 'text',
    part,
    name,
    hint,
    read: (text) => {
      const { value, rest } = readPairs(text)
      return { value: value.map(([x, y]) => ({ [a]: x - shift(a), [b]: y - shift(b) })), rest }
    },
    write: (all: Record<string, number>[] = []) =>
      writePairs(all.map((p) => [(p[a] ?? 0) + shift(a), (p[b] ?? 0) + shift(b)])),
  }
}
/** One place on the neck, or none. */
const extraAt: Field = {
  as: 'text',
  part: 'extraAt',
  name: 'One extra note',
  hint: 'string:fret, anywhere',
  read: (text) => {
    const { value, rest } = readPairs(text)
    const [first] = value
    return { value: first && { string: first[0], fret: first[1] }, rest }
  },
  write: (at?: { string: number; fret: number }) => (at ? `${at.string}:${at.fret}` : ''),
}
const atFrets: Field = { as: 'switch', part: 'atFrets', name: 'Numbers are frets of the neck' }
const order: Field = { as: 'choice', part: 'order', name: 'Order', options: orders }

/** The parts of each kind of pattern that are set one by one; the rest have fields of their own. */
export const fields: Partial<Record<Pattern['kind'], Field[]>> = {
  slurCombinations: [{ as: 'choice', part: 'slur', name: 'Slurs', options: slurs }],
  trill: [
    list('fingers', 'Fingers', 'first one first, 0 open'),
    { as: 'switch', part: 'either', name: 'Then from the other finger' },
  ],
  openStrings: [list('fingers', 'Notes', 'fingers, 0 open')],
  scaleRun: [
    list('perString', 'Notes a string', 'in turn'),
    order,
    { as: 'switch', part: 'topTapped', name: 'Top note of each string tapped' },
  ],
  mixedRun: [
    number('slurred', 'Slurred on one string', 1, 4),
    number('picked', 'Picked on the next', 1, 4),
    order,
  ],
  oneString: [list('steps', 'Cell', 'degrees from 0, o open')],
  skipArpeggio: [
    number('perString', 'Notes a string', 1, 4),
    number('extra', 'Extra notes on top', 0, 3),
    extraAt,
    order,
  ],
  triad: [list('voices', 'Chord notes', '0 root, 1 third, 2 fifth'), order],
  tapping: [
    number('low', 'Lower finger', 0, 4, 'Lower finger (0 open)'),
    number('middle', 'Middle finger', 1, 4),
    { ...number('tapAt', 'Tap, frets above', 1, 36), atFret: 'Tap, fret' } as Field,
    atFrets,
    { as: 'choice', part: 'order', name: 'Order of the taps', stacked: true, options: tapOrders },
  ],
  bentTaps: [
    number('finger', 'Finger that bends', 1, 4),
    frets('taps', 'Taps', 'frets above'),
    atFrets,
    { as: 'switch', part: 'between', name: 'The bent note between the taps' },
  ],
  twoHands: [
    frets('fretted', 'Fretted', 'frets above, a string each', 'frets, a string each'),
    frets('tapped', 'Tapped', 'likewise', 'likewise'),
    atFrets,
    pairs('moves', 'Moves', 'fretting:tapping, frets', 'fretting', 'tapping'),
  ],
  twoStringShape: [
    frets('lower', 'First string', 'frets above'),
    frets('higher', 'Second string', 'frets above'),
    atFrets,
    { as: 'choice', part: 'order', name: 'Order', stacked: true, options: shapeOrders },
  ],
  chordShape: [
    pairs('shape', 'Shape', 'finger:fret, a string each', 'finger', 'fret'),
    number('leaper', 'Leaping finger', 1, 4),
    pairs('leaps', 'Leaps', 'string:fret', 'string', 'fret', 'string'),
    atFrets,
  ],
}
