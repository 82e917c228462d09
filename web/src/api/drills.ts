import { answer, client, type DrillFile } from './client'

/** Makes a drill of a file or of text, for somebody's guitar, and tells what was proposed. */
export function takeIn(
  content: Blob | string,
  whom?: string,
): Promise<{ file: DrillFile; told: string[] }> {
  return answer(
    client.POST('/import', {
      params: { query: { for: whom } },
      headers: { 'Content-Type': 'application/octet-stream' },
      body: content as string, // the contract's binary body
      bodySerializer: (body: unknown) => body as BodyInit,
    }),
  )
}

/** Saves drills as new ones in a folder of the library. */
export async function keepIn(folder: string, files: DrillFile[]): Promise<void> {
  for (const body of files) {
    const made = await answer(client.POST('/drills', { body }))
    await answer(
      client.PUT('/drills/{drillId}/shelf', {
        params: { path: { drillId: made.id } },
        body: { folder, tags: [], favourite: false },
      }),
    )
  }
}
