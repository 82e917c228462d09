// Lets the core, built for the browser, hear takes as the stand's worker does:
// node hear.mjs wasm_exec.js ear.wasm FOLDER; of each NAME.task.json and NAME.samples
// (32-bit integers) it writes NAME.verdict.json.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

const [, , exec, wasm, folder] = process.argv
;(0, eval)(readFileSync(exec, 'utf8'))
const go = new globalThis.Go()
const { instance } = await WebAssembly.instantiate(readFileSync(wasm), go.importObject)
void go.run(instance)

const blockBytes = 4 * 1000 // not a power of two: a stream is heard like a file
for (const file of readdirSync(folder).filter((f) => f.endsWith('.task.json'))) {
  const name = join(folder, file.slice(0, -'.task.json'.length))
  const begun = JSON.parse(globalThis.manudrillEar.begin(readFileSync(name + '.task.json', 'utf8')))
  if (begun?.error) throw new Error(begun.error)
  const samples = readFileSync(name + '.samples')
  for (let at = 0; at < samples.length; at += blockBytes) {
    const said = JSON.parse(globalThis.manudrillEar.hear(new Uint8Array(samples.subarray(at, at + blockBytes))))
    if (said.error) throw new Error(said.error)
  }
  writeFileSync(name + '.verdict.json', globalThis.manudrillEar.end())
}
process.exit(0)
