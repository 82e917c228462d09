import { answer, client, type Person } from './client'
import { everything } from './pages'

/** Everybody in the studio, instructors first. */
export function allPeople(): Promise<Person[]> {
  return everything((after) => answer(client.GET('/people', { params: { query: { after } } })))
}
