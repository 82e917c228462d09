import { answer, client, type Binned } from './client'
import { everything } from './pages'

/** What was deleted or taken back and can be brought back, the latest first. */
export function binned(): Promise<Binned[]> {
  return everything((after) => answer(client.GET('/bin', { params: { query: { after } } })))
}

export async function bringBackDrill(drillId: string): Promise<void> {
  await answer(client.POST('/drills/{drillId}/restore', { params: { path: { drillId } } }))
}

export async function bringBackBlock(blockId: string): Promise<void> {
  await answer(client.POST('/blocks/{blockId}/restore', { params: { path: { blockId } } }))
}

/** Gives an assignment back that was taken back. */
export async function giveBack(assignmentId: string): Promise<void> {
  await answer(
    client.POST('/assignments/{assignmentId}/restore', { params: { path: { assignmentId } } }),
  )
}

export async function bringBackRoutine(routineId: string): Promise<void> {
  await answer(client.POST('/routines/{routineId}/restore', { params: { path: { routineId } } }))
}

/** How each kind of thing is brought back. */
const ways: Record<Binned['kind'], (id: string) => Promise<void>> = {
  drill: bringBackDrill,
  block: bringBackBlock,
  assignment: giveBack,
  routine: bringBackRoutine,
}

export const bringBack = (b: Binned): Promise<void> => ways[b.kind](b.id)
