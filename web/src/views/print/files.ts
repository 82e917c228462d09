import { loadTypes, outlined, textDrawing } from '../../draw/outlines'

/*
 * The sheet as a file of its own: the drawings that are on the page, under one another. A piece
 * is never parted by the end of a page.
 */

const inner = 690
const between = 10

/** What the sheet says, and draws, of one drill. */
export interface DrillOnSheet {
  heading: string
  lines: string[]
  drawings: SVGSVGElement[]
}

export interface SheetToKeep {
  title: string
  care: string
  drills: DrillOnSheet[]
}

const sizeOf = (svg: SVGSVGElement) => ({
  width: Number(svg.getAttribute('width')),
  height: Number(svg.getAttribute('height')),
})

/** All pieces of the sheet, in order. */
async function piecesOf(sheet: SheetToKeep): Promise<SVGSVGElement[]> {
  const types = await loadTypes()
  const text = (t: string, font: 'plain' | 'bold', size: number) =>
    textDrawing(t, types[font], size, inner)
  return [
    text(sheet.title, 'bold', 22),
    text(sheet.care, 'plain', 11),
    ...sheet.drills.flatMap((d) => [
      ...(d.heading ? [text(d.heading, 'bold', 16)] : []),
      ...d.lines.map((line) => text(line, 'plain', 13)),
      ...d.drawings.map((drawing) => outlined(drawing, types)),
    ]),
  ]
}

export async function sheetAsSVG(sheet: SheetToKeep): Promise<Blob> {
  const pieces = await piecesOf(sheet)
  const all = document.createElementNS('http://www.w3.org/2000/svg', 'svg')
  let y = 0
  for (const piece of pieces) {
    piece.setAttribute('y', String(y))
    all.append(piece)
    y += sizeOf(piece).height + between
  }
  const width = Math.max(inner, ...pieces.map((p) => sizeOf(p).width))
  all.setAttribute('viewBox', `0 0 ${width} ${y}`)
  all.setAttribute('width', String(width))
  all.setAttribute('height', String(y))
  return new Blob([new XMLSerializer().serializeToString(all)], { type: 'image/svg+xml' })
}

/** 14 mm, in points. */
const margin = 40

export async function sheetAsPDF(sheet: SheetToKeep, paper: 'A4' | 'Letter'): Promise<Blob> {
  const [pieces, { jsPDF }, { svg2pdf }] = await Promise.all([
    piecesOf(sheet),
    import('jspdf'),
    import('svg2pdf.js'),
  ])
  const pdf = new jsPDF({ unit: 'pt', format: paper.toLowerCase(), compress: true })
  pdf.setProperties({ title: sheet.title })
  const room = pdf.internal.pageSize.getWidth() - 2 * margin
  const bottom = pdf.internal.pageSize.getHeight() - margin
  let y = margin
  for (const piece of pieces) {
    const { width, height } = sizeOf(piece)
    const scale = Math.min(room / Math.max(width, inner), (bottom - margin) / height)
    if (y + height * scale > bottom) {
      pdf.addPage()
      y = margin
    }
    await svg2pdf(piece, pdf, { x: margin, y, width: width * scale, height: height * scale })
    y += (height + between) * scale
  }
  return pdf.output('blob')
}
