import { answer, client, type Routine, type SavedRoutine, type Stand } from './client'

/** A student's routines, that which was changed last first. */
export function routinesOf(studentId: string): Promise<SavedRoutine[]> {
  return answer(client.GET('/students/{studentId}/routines', { params: { path: { studentId } } }))
}

export function routine(routineId: string): Promise<SavedRoutine> {
  return answer(client.GET('/routines/{routineId}', { params: { path: { routineId } } }))
}

/** All that is needed to play a routine: what lies on the stand for each of its drills. */
export function standsOf(routineId: string): Promise<Stand[]> {
  return answer(client.GET('/routines/{routineId}/stands', { params: { path: { routineId } } }))
}

/** A day of a student's plan, which is a routine too, and what it plays. */
export function planDay(
  studentId: string,
  date: string,
): Promise<{ routine: SavedRoutine; stands: Stand[] }> {
  return answer(
    client.GET('/students/{studentId}/plan/days/{date}', {
      params: { path: { studentId, date } },
    }),
  )
}

/** By what an item finds what lies on the stand: a drill lies in another position than its own. */
export const standKey = (drill: string, position = 0): string =>
  position ? `${drill}@${position}` : drill

/** Makes a routine, or changes the one of its id from a revision. */
export function putRoutine(
  studentId: string,
  routineId: string,
  revision: number,
  body: Routine,
): Promise<SavedRoutine> {
  const params = { path: { studentId, routineId }, header: { 'If-Match': revision } }
  return answer(client.PUT('/students/{studentId}/routines/{routineId}', { params, body }))
}

/** Makes a routine that ships, with its drills, for a student. */
export function addReadyRoutine(
  studentId: string,
  routineId: string,
  readyId: string,
): Promise<SavedRoutine> {
  const params = { path: { studentId, routineId, readyId } }
  return answer(
    client.POST('/students/{studentId}/routines/{routineId}/ready/{readyId}', { params }),
  )
}

export async function deleteRoutine(routineId: string): Promise<void> {
  await answer(client.DELETE('/routines/{routineId}', { params: { path: { routineId } } }))
}
