import { answer, client, type Bench } from '../api/client'

let asked: Promise<Bench> | undefined

/** What drills can be made from; asked for once. */
export function catalogue(): Promise<Bench> {
  asked ??= answer(client.GET('/bench')).catch((thrown: unknown) => {
    asked = undefined
    throw thrown
  })
  return asked
}
