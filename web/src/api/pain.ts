import { useStorage } from '@vueuse/core'

import type { HandRecord } from './client'

/** A report of pain. */
interface Pain {
  id: string
  at: string
}

/**
 * By student, pain that no instructor has cleared, as far as this device knows: it holds without
 * a line, after the page is loaded again, and in every window.
 */
const pains = useStorage<Record<string, Pain>>('manudrill pain', {})

export const painOf = (studentId: string): Pain | undefined => pains.value[studentId]

export function painSaid(studentId: string, pain: Pain): void {
  pains.value = { ...pains.value, [studentId]: pain }
}

/** Forgets a report that was taken back. */
export function painTakenBack(studentId: string, id: string): void {
  if (painOf(studentId)?.id === id) forget(studentId)
}

function forget(studentId: string): void {
  pains.value = Object.fromEntries(Object.entries(pains.value).filter(([of]) => of !== studentId))
}

/**
 * Takes what the studio says. It may be what it said before the report, which says nothing of
 * it: a report is over once it is told of as cleared or withdrawn, or only later ones are told.
 */
export function painTold(studentId: string, { hurts, reports }: HandRecord): void {
  const standing = reports.find((r) => r.report.kind === 'hurts' && !r.withdrawnAt && !r.clearedAt)
  if (hurts && standing) return painSaid(studentId, { id: standing.id, at: standing.at })
  const mine = painOf(studentId)
  if (!mine || hurts || reports.length === 0) return
  const told = reports.some((r) => r.id === mine.id)
  const onlyLater = reports.every((r) => Date.parse(r.at) > Date.parse(mine.at))
  if (told || onlyLater) forget(studentId)
}
