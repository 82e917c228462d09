import { computed, ref, watch } from 'vue'

import { answer, client, onNobody, Problem, type Here, type Person } from './api/client'
import { sayWhatWaits } from './api/hand'
import { forgetAnswers } from './offline/rules'
import { outbox } from './audio/outbox'

/** Who is here, and where; undefined until asked, null for nobody. */
export const here = ref<Here | null>()
export const person = computed<Person | null | undefined>(() => here.value && here.value.person)

// Recordings wait for whoever has played them, and for the line.
watch(person, (who, before) => {
  if (before && who?.id !== before.id) void forgetAnswers()
  void outbox.for(who?.id)
  if (who) void sayWhatWaits(who.id)
})
if (typeof window !== 'undefined') {
  window.addEventListener('online', () => {
    void outbox.run()
    if (person.value) void sayWhatWaits(person.value.id)
  })
  void outbox.tidy().catch(() => undefined) // a device without a store has nothing to tidy
}
onNobody(() => (here.value = null))

/** Asks the server who is here. */
export async function findPerson(): Promise<Person | null> {
  try {
    here.value = await answer(client.GET('/session'))
  } catch (thrown) {
    if (!(thrown instanceof Problem) || thrown.status !== 401) throw thrown
    here.value = null
  }
  return here.value?.person ?? null
}

/** Whoever comes in by one of these is here from then on. */
async function come(by: Promise<Here>): Promise<Person> {
  here.value = await by
  return here.value.person
}

/** Is somebody of the demo. */
export function enter(personId: string): Promise<Person> {
  return come(answer(client.PUT('/session', { body: { personId } })))
}

export function signIn(name: string, password: string, studio?: string): Promise<Person> {
  return come(answer(client.POST('/session', { body: { name, password, studio } })))
}

export function comeIn(code: string): Promise<Person> {
  return come(answer(client.POST('/session/code', { body: { code } })))
}

export interface Beginning {
  token: string
  studio: string
  name: string
  email: string
  signIn: string
  password: string
}

/** That of the browser, by which the days of a studio begin. */
const timeZone = Intl.DateTimeFormat().resolvedOptions().timeZone

export function begin(b: Beginning): Promise<Person> {
  return come(answer(client.POST('/house', { body: { timeZone, ...b } })))
}

/** Chooses a name and a password to sign in with; all other devices are signed out. */
export function chooseAccount(signIn: string, password: string, old?: string): Promise<Person> {
  return come(answer(client.PUT('/account', { body: { signIn, password, old } })))
}

/** Whether one gets a letter when something was said of a take. */
export function wantLetters(wanted: boolean): Promise<Person> {
  return come(answer(client.PUT('/account/letters', { body: { wanted } })))
}

export function resetPassword(token: string, password: string): Promise<Person> {
  return come(answer(client.PUT('/resets', { body: { token, password } })))
}

export async function leave(): Promise<void> {
  await answer(client.DELETE('/session'))
  here.value = null
}

export async function leaveEverywhere(): Promise<void> {
  await answer(client.DELETE('/sessions'))
  here.value = null
}

/** The first page of a person. */
export function homeOf(p: Person): string {
  return p.role === 'student' ? '/practice' : '/drills'
}
