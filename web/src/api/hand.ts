import { useStorage } from '@vueuse/core'

import { answer, client, problemOf, type HandRecord, type HandReport } from './client'
import { newId } from './ids'
import { painSaid, painTakenBack, painTold } from './pain'
import { isFinal } from '../audio/outbox'

/** What a student said of their hand, which the studio does not have yet. */
interface Unsaid {
  id: string
  studentId: string
  at: string
  report: HandReport
}

/** How long after a failure it is tried again, in ms. */
const again = 15_000
/** What is being said; one thing after the other. */
let saying: Promise<void> = Promise.resolve()

/** Kept on this device until the studio has it. */
const unsaid = useStorage<Unsaid[]>('manudrill hand', [])

export async function handOf(studentId: string): Promise<HandRecord> {
  const params = { path: { studentId } }
  const record = await answer(client.GET('/students/{studentId}/hand', { params }))
  painTold(studentId, record)
  return record
}

/**
 * Says how a hand is, at once or as soon as there is a line. Said again under the id that
 * is returned, it takes the place of what was said before.
 */
export function sayOfHand(studentId: string, report: HandReport, id = newId()): string {
  const before = unsaid.value.find((u) => u.id === id)
  const at = before?.at ?? new Date().toISOString()
  unsaid.value = [...unsaid.value.filter((u) => u.id !== id), { id, studentId, at, report }]
  if (report.kind === 'hurts') painSaid(studentId, { id, at })
  void sayWhatWaits(studentId)
  return id
}

/** Takes back what was said by mistake. */
export async function unsay(studentId: string, reportId: string): Promise<void> {
  await saying // what is under way arrives first
  const waits = unsaid.value.some((u) => u.id === reportId)
  unsaid.value = unsaid.value.filter((u) => u.id !== reportId)
  painTakenBack(studentId, reportId)
  const params = { path: { studentId, reportId } }
  try {
    await answer(client.DELETE('/students/{studentId}/hand/{reportId}', { params }))
  } catch (thrown) {
    if (!waits) throw thrown // else the studio never heard of it
  }
}

/** Says what waits for a line, of whoever is here. */
export function sayWhatWaits(studentId: string): Promise<void> {
  return (saying = saying.then(() => sayAll(studentId)))
}

/** What the studio refuses is dropped. */
async function sayAll(studentId: string): Promise<void> {
  for (const u of unsaid.value.filter((u) => u.studentId === studentId)) {
    const params = { path: { studentId, reportId: u.id }, query: { at: u.at } }
    try {
      await answer(client.PUT('/students/{studentId}/hand/{reportId}', { params, body: u.report }))
    } catch (thrown) {
      if (!isFinal(problemOf(thrown))) {
        setTimeout(() => void sayWhatWaits(studentId), again)
        return
      }
      painTakenBack(studentId, u.id)
    }
    unsaid.value = unsaid.value.filter((other) => JSON.stringify(other) !== JSON.stringify(u))
  }
}

/** Lets the ladders climb again of a student who had reported pain. */
export async function clearPain(studentId: string): Promise<void> {
  await answer(client.POST('/students/{studentId}/hand/clear', { params: { path: { studentId } } }))
}
