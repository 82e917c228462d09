import { answer, client, type Group, type Member, type Person } from './client'
import { everything } from './pages'

/** Everybody who is here, instructors first. */
export function allMembers(): Promise<Member[]> {
  return everything((after) => answer(client.GET('/people', { params: { query: { after } } })))
}

export async function allPeople(): Promise<Person[]> {
  return (await allMembers()).map((m) => m.person)
}

/** Who can be chosen in the demo, instructors first. */
export function demoPeople(): Promise<Person[]> {
  return everything((after) => answer(client.GET('/demo/people', { params: { query: { after } } })))
}

/** Whether somebody may do what instructors may. */
export function teaches(p: Person): boolean {
  return p.role !== 'student'
}

/** Gives somebody a code to come in by, in place of what they came in by before. */
export async function giveCode(personId: string): Promise<string> {
  const path = { personId }
  return (await answer(client.POST('/people/{personId}/code', { params: { path } }))).code
}

export async function archive(personId: string): Promise<void> {
  await answer(client.POST('/people/{personId}/archive', { params: { path: { personId } } }))
}

export async function remove(personId: string): Promise<Member> {
  return answer(client.DELETE('/people/{personId}', { params: { path: { personId } } }))
}

export async function bringPersonBack(personId: string): Promise<void> {
  await answer(client.POST('/people/{personId}/back', { params: { path: { personId } } }))
}

export function allGroups(): Promise<Group[]> {
  return answer(client.GET('/groups'))
}

/** Makes a group, or changes the one of its id. */
export function putGroup(g: Group): Promise<Group[]> {
  const params = { path: { groupId: g.id }, header: { 'If-Match': g.revision } }
  return answer(
    client.PUT('/groups/{groupId}', { params, body: { name: g.name, students: g.students } }),
  )
}
