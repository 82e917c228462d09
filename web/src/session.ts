import { ref, watch } from 'vue'

import { answer, client, Problem, type Person } from './api/client'
import { outbox } from './audio/outbox'

/** Who is here; undefined until asked, null for nobody. */
export const person = ref<Person | null>()

// Recordings wait for whoever has played them, and for the line.
watch(person, (who) => void outbox.for(who?.id))
if (typeof window !== 'undefined') {
  window.addEventListener('online', () => void outbox.run())
  void outbox.tidy().catch(() => undefined) // a device without a store has nothing to tidy
}

/** Asks the server who is here. */
export async function findPerson(): Promise<Person | null> {
  try {
    person.value = await answer(client.GET('/session'))
  } catch (thrown) {
    if (!(thrown instanceof Problem) || thrown.status !== 401) throw thrown
    person.value = null
  }
  return person.value
}

export async function enter(personId: string): Promise<Person> {
  person.value = await answer(client.PUT('/session', { body: { personId } }))
  return person.value
}

export async function leave(): Promise<void> {
  await answer(client.DELETE('/session'))
  person.value = null
}

/** The first page of a person. */
export function homeOf(p: Person): string {
  return p.role === 'instructor' ? '/drills' : '/practice'
}
