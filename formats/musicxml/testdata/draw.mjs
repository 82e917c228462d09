// Draws a MusicXML file with verovio and prints how often each class of element is on the
// pages, and how many signs stand beside notes; with a second name the first page is written there as SVG.
import { readFileSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { pathToFileURL } from 'node:url'

const require = createRequire(new URL('../../../web/package.json', import.meta.url))
const load = (name) => import(pathToFileURL(require.resolve(name)).href)
const { default: createModule } = await load('verovio/wasm')
const { VerovioToolkit } = await load('verovio/esm')

const [file, picture] = process.argv.slice(2)
const verovio = new VerovioToolkit(await createModule())
verovio.setOptions({ pageWidth: 2100, adjustPageHeight: true, scale: 40, footer: 'none' })
if (!verovio.loadData(readFileSync(file, 'utf8'))) throw new Error('verovio cannot read it')
const counts = {}
for (let page = 1; page <= verovio.getPageCount(); page++) {
  const svg = verovio.renderToSVG(page)
  if (page === 1 && picture) writeFileSync(picture, svg)
  counts.signs = (counts.signs ?? 0) + [...svg.matchAll(/class="accid"[^>]*>\s*<use/g)].length
  for (const [, name] of svg.matchAll(/<g [^>]*class="(\w+)/g)) counts[name] = (counts[name] ?? 0) + 1
}
console.log(JSON.stringify(counts))
