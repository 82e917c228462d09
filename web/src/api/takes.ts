import type { Film } from '../audio/camera'
import { fileBody } from './files'
import { answer, client, Problem, type Source, type Take } from './client'

/** The largest file the server takes, in bytes. */
const maxFile = 192 * 2 ** 20

/** A recording as it is handed in. */
export interface HandIn {
  assignmentId: string
  /** Made here, so that handing the same recording in twice makes one take. */
  takeId: string
  source: Source
  bpm: number
  /** The tempo that is heard counts, where nobody knows it. */
  asHeard?: boolean
  /** At a tempo of the player's own choice, or by a simulated instrument. */
  aside?: 'ownTempo' | 'tryOut'
  /** When the first beat is clicked in it, in s, where that is known. */
  clickAt?: number
  /** By how many bpm each pass was to be faster. */
  rise?: number
  /** Of the rung that was played. */
  notesPerBeat?: number
  file: Blob
  /** Of the drill that was played. */
  version?: number
  /** Where on the neck it was played, where that is not the drill's own position. */
  position?: number
  /** By the clock of this device. */
  recordedAt: string
}

/** How long a line may need for a megabyte, and for anything, in ms. */
const perMegabyte = 8_000
const atLeast = 20_000

/** Hands a recording in. Once this resolves, the server keeps it. */
export async function handIn(h: HandIn): Promise<Take> {
  // A server that refuses a large file breaks the connection off and is not heard.
  if (h.file.size > maxFile)
    throw new Problem(
      'The file is too large',
      `It has ${Math.round(h.file.size / 2 ** 20)} MB; a take may have ${maxFile / 2 ** 20} MB at the most. Cut the recording to the drill, or save it as FLAC.`,
      413,
    )
  const {
    assignmentId,
    takeId,
    source,
    bpm,
    aside,
    clickAt,
    rise,
    asHeard,
    notesPerBeat,
    version,
    position,
    recordedAt,
  } = h
  return answer(
    client.PUT('/assignments/{assignmentId}/takes/{takeId}', {
      params: {
        path: { assignmentId, takeId },
        query: {
          source,
          bpm,
          aside,
          clickAt,
          rise,
          asHeard,
          notesPerBeat,
          version,
          position,
          recordedAt,
        },
      },
      ...fileBody(h.file),
      signal: AbortSignal.timeout(atLeast + (perMegabyte * h.file.size) / 2 ** 20),
    }),
  )
}

/** Hands in the hands of a take, on video. */
export async function handInFilm(takeId: string, { blob, startsAt }: Film): Promise<void> {
  await answer(
    client.PUT('/takes/{takeId}/video', {
      params: { path: { takeId }, query: { startsAt: Math.max(-60, Math.min(1200, startsAt)) } },
      ...fileBody(blob),
      signal: AbortSignal.timeout(atLeast + (perMegabyte * blob.size) / 2 ** 20),
    }),
  )
}

export function getTake(takeId: string): Promise<Take> {
  return answer(client.GET('/takes/{takeId}', { params: { path: { takeId } } }))
}

/** How often the server is asked for a take that waits, in ms. */
const askEvery = 1000

/** A take once it is measured, or could not be. */
export async function settled(take: Take, cancelled: () => boolean = () => false): Promise<Take> {
  while (take.summary.state === 'waiting' && !cancelled()) {
    await new Promise((resolve) => setTimeout(resolve, askEvery))
    take = await getTake(take.summary.id)
  }
  return take
}

/** Lets a take be measured again. */
export async function measureAgain(takeId: string): Promise<void> {
  await answer(client.POST('/takes/{takeId}/measure', { params: { path: { takeId } } }))
}
