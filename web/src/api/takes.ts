import { answer, client, Problem, type Source, type Take } from './client'

/** The largest file the server takes, in bytes. */
const maxFile = 100 * 2 ** 20

/**
 * Hands a recording in. The id is made here, so that handing the same recording
 * in twice makes one take.
 */
export async function handIn(
  assignmentId: string,
  takeId: string,
  source: Source,
  bpm: number,
  file: Blob,
  version?: number,
): Promise<Take> {
  // A server that refuses a large file breaks the connection off and is not heard.
  if (file.size > maxFile)
    throw new Problem(
      'The file is too large',
      `It has ${Math.round(file.size / 2 ** 20)} MB; a take may have 100 MB at the most. Cut the recording to the drill, or save it as FLAC.`,
    )
  return answer(
    client.PUT('/assignments/{assignmentId}/takes/{takeId}', {
      params: { path: { assignmentId, takeId }, query: { source, bpm, version } },
      headers: { 'Content-Type': 'application/octet-stream' },
      body: file as unknown as string, // the contract's binary body
      bodySerializer: (body: unknown) => body as Blob,
    }),
  )
}
