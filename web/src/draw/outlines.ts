import { create, type Font } from 'fontkit'

import bravura from '@vexflow-fonts/bravura/bravura.woff2?url'
import bold from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff2?url'
import plain from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff2?url'

/*
 * Drawings as they are on the screen, made into files that look the same anywhere: what styles
 * set stands at each element, and letters are outlines, so that no type need be installed.
 */

const svgNamespace = 'http://www.w3.org/2000/svg'

/** The types that drawings are set in. */
export interface Types {
  plain: Font
  bold: Font
  music: Font
}

export async function loadTypes(): Promise<Types> {
  const [p, b, m] = await Promise.all([plain, bold, bravura].map(load))
  return { plain: p!, bold: b!, music: m! }
}

async function load(url: string): Promise<Font> {
  const answer = await fetch(url)
  if (!answer.ok) throw new Error('the types of the sheet could not be loaded; try again on a line')
  const bytes = await answer.arrayBuffer()
  return create(new Uint8Array(bytes) as Parameters<typeof create>[0]) as Font
}

/** What the type of the letters does not have, as it is written without. */
const plainer: Record<string, string> = { '♯': '#', '♭': 'b', '−': '-', '×': 'x' }

/** A line of text as one path, from its left end on the baseline; and how wide it is. */
export function lineOf(text: string, font: Font, size: number): { d: string; width: number } {
  const scale = size / font.unitsPerEm
  const letters = [...text].map((c) =>
    font.hasGlyphForCodePoint(c.codePointAt(0)!) ? c : (plainer[c] ?? c),
  )
  const run = font.layout(letters.join(''))
  let x = 0
  let d = ''
  run.glyphs.forEach((glyph, i) => {
    const at = run.positions[i]!
    d += glyph.path
      .scale(scale, -scale)
      .translate((x + at.xOffset) * scale, -at.yOffset * scale)
      .toSVG()
    x += at.xAdvance
  })
  return { d, width: x * scale }
}

/** What of the style of an element a drawing is made of. */
const kept = [
  'fill',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linecap',
  'opacity',
  'fill-opacity',
  'stroke-opacity',
] as const
const geometry = /^(x|y|x1|x2|y1|y2|cx|cy|r|rx|ry|d|width|height|viewBox|transform|points)$/

/** A copy of a drawing on the page that needs neither its styles nor its types. */
export function outlined(drawing: SVGSVGElement, types: Types): SVGSVGElement {
  const copy = outlinedElement(drawing, types) as SVGSVGElement
  const { width, height } = drawing.getBoundingClientRect()
  copy.setAttribute('width', String(width))
  copy.setAttribute('height', String(height))
  if (!copy.hasAttribute('viewBox')) copy.setAttribute('viewBox', `0 0 ${width} ${height}`)
  return copy
}

function outlinedElement(from: Element, types: Types): Element | undefined {
  const style = getComputedStyle(from)
  if (style.display === 'none' || style.visibility === 'hidden' || style.opacity === '0')
    return undefined
  if (from.tagName === 'text') return outlinedText(from as SVGTextElement, style, types)
  const to = document.createElementNS(svgNamespace, from.tagName)
  for (const { name, value } of from.attributes)
    if (geometry.test(name)) to.setAttribute(name, value)
  if (from.children.length === 0) keepStyle(style, to)
  else if (style.opacity !== '1') to.setAttribute('opacity', style.opacity)
  for (const child of from.children) {
    const made = outlinedElement(child, types)
    if (made) to.append(made)
  }
  return to
}

function keepStyle(style: CSSStyleDeclaration, to: Element): void {
  for (const name of kept) to.setAttribute(name, style.getPropertyValue(name).replace(/px/g, ''))
}

function outlinedText(from: SVGTextElement, style: CSSStyleDeclaration, types: Types): Element {
  const size = parseFloat(style.fontSize)
  const letters = Number(style.fontWeight) >= 600 ? types.bold : types.plain
  const font = style.fontFamily.includes('Bravura') ? types.music : letters
  const { d, width } = lineOf((from.textContent ?? '').trim(), font, size)
  const before = { start: 0, middle: width / 2, end: width }[style.textAnchor] ?? 0
  const path = document.createElementNS(svgNamespace, 'path')
  path.setAttribute('d', d)
  const at = (name: string) => Number(from.getAttribute(name) ?? 0)
  const own = from.getAttribute('transform')
  path.setAttribute('transform', `${own ?? ''} translate(${at('x') - before} ${at('y')})`.trim())
  keepStyle(style, path)
  return path
}

/** Lines of text as a drawing of their own, broken where they are too wide. */
export function textDrawing(text: string, font: Font, size: number, width: number): SVGSVGElement {
  const leading = size * 1.35
  const lines = broken(text, (t) => lineOf(t, font, size).width <= width)
  const svg = document.createElementNS(svgNamespace, 'svg')
  lines.forEach((line, i) => {
    const path = document.createElementNS(svgNamespace, 'path')
    path.setAttribute('d', lineOf(line, font, size).d)
    path.setAttribute('transform', `translate(0 ${size + i * leading})`)
    path.setAttribute('fill', '#000')
    svg.append(path)
  })
  const height = lines.length * leading
  svg.setAttribute('width', String(width))
  svg.setAttribute('height', String(height))
  svg.setAttribute('viewBox', `0 0 ${width} ${height}`)
  return svg
}

/** Breaks a text between its words into lines that fit; a word that does not stands alone. */
export function broken(text: string, fits: (line: string) => boolean): string[] {
  const lines: string[] = []
  for (const word of text.split(/\s+/).filter(Boolean)) {
    const last = lines.at(-1)
    if (last !== undefined && fits(`${last} ${word}`)) lines[lines.length - 1] = `${last} ${word}`
    else lines.push(word)
  }
  return lines
}
