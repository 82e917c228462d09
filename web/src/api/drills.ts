import {
  answer,
  client,
  type Block,
  type DrillFile,
  type ImportedDrill,
  type SavedBlock,
  type SavedDrill,
} from './client'
import { newId } from './ids'
import { everything } from './pages'

/** What of a file is read; what is not said is chosen. */
export interface Reading {
  line?: number
  firstBar?: number
  lastBar?: number
}

/** Makes a drill of a file or of text, for somebody's guitar, and tells what was proposed. */
export function importDrill(
  content: Blob | string,
  reading: Reading & { for?: string } = {},
): Promise<ImportedDrill> {
  return answer(
    client.POST('/import', {
      params: { query: reading },
      headers: { 'Content-Type': 'application/octet-stream' },
      body: content as string, // the contract's binary body
      bodySerializer: (body: unknown) => body as BodyInit,
    }),
  )
}

export function allDrills(): Promise<SavedDrill[]> {
  return everything((after) => answer(client.GET('/drills', { params: { query: { after } } })))
}

export function allBlocks(): Promise<SavedBlock[]> {
  return everything((after) => answer(client.GET('/blocks', { params: { query: { after } } })))
}

/** Saves a new drill. The same id twice makes one. */
export function createDrill(body: DrillFile, whom?: string, id = newId()): Promise<SavedDrill> {
  return answer(client.POST('/drills', { body, params: { query: { id, for: whom } } }))
}

/** Saves a drill that was changed from a revision. */
export function changeDrill(
  id: string,
  from: number,
  body: DrillFile,
  whom?: string,
): Promise<SavedDrill> {
  const params = { path: { drillId: id }, query: { for: whom }, header: { 'If-Match': from } }
  return answer(client.PUT('/drills/{drillId}', { params, body }))
}

/** Puts a drill on a shelf, from the one it was seen on. */
export function putOnShelf(d: SavedDrill, shelf: SavedDrill['shelf']): Promise<SavedDrill> {
  const params = { path: { drillId: d.id }, header: { 'If-Match': d.shelfRevision } }
  return answer(client.PUT('/drills/{drillId}/shelf', { params, body: shelf }))
}

/** Saves a block that was changed from a revision. */
export function changeBlock(
  id: string,
  from: number,
  body: SavedBlock['block'],
): Promise<SavedBlock> {
  const params = { path: { blockId: id }, header: { 'If-Match': from } }
  return answer(client.PUT('/blocks/{blockId}', { params, body }))
}

/** Saves a new block. */
export function createBlock(body: Block, whom?: string, id = newId()): Promise<SavedBlock> {
  return answer(client.POST('/blocks', { body, params: { query: { id, for: whom } } }))
}

/** Saves drills as new ones in a folder of the library. */
export async function keepIn(folder: string, files: DrillFile[]): Promise<SavedDrill[]> {
  const kept: SavedDrill[] = []
  for (const body of files) {
    const made = await createDrill(body)
    await putOnShelf(made, { folder, tags: [], favourite: false })
    kept.push(made)
  }
  return kept
}
