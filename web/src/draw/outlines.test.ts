import { readFileSync } from 'node:fs'

import { create, type Font } from 'fontkit'
import { describe, expect, it } from 'vitest'

import { broken, lineOf } from './outlines'

const file =
  'node_modules/@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff2'
const font = create(readFileSync(file)) as Font

describe('letters as outlines', () => {
  it('are as wide as the type says, and grow with its size', () => {
    const em = (text: string) =>
      font.layout(text).glyphs.reduce((sum, g) => sum + g.advanceWidth, 0) / font.unitsPerEm
    expect(lineOf('11', font, 10).width).toBeCloseTo(10 * em('11'), 6)
    expect(lineOf('Slurs', font, 20).width).toBeCloseTo(2 * lineOf('Slurs', font, 10).width, 6)
    expect(lineOf('', font, 20)).toEqual({ d: '', width: 0 })
  })
  it('stand on their baseline, above it and not below', () => {
    const ys = [...lineOf('H', font, 100).d.matchAll(/[ML]\s*-?[\d.]+[ ,](-?[\d.]+)/g)].map((m) =>
      Number(m[1]),
    )
    expect(ys.length).toBeGreaterThan(4)
    expect(Math.max(...ys)).toBeCloseTo(0, 1)
    expect(Math.min(...ys)).toBeLessThan(-50)
  })
  it('are written plainer where the type lacks a sign', () => {
    expect(lineOf('F♯', font, 10)).toEqual(lineOf('F#', font, 10))
  })
})

it('breaks a text where a line is full', () => {
  const fits = (line: string) => line.length <= 8
  expect(broken('one two  three antidisestablishment x', fits)).toEqual([
    'one two',
    'three',
    'antidisestablishment',
    'x',
  ])
  expect(broken('', fits)).toEqual([])
})
