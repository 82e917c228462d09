import { afterEach, describe, expect, it, vi } from 'vitest'

import { client, type DrillFile } from '../api/client'
import { usePreview } from './preview'

/** A server that answers when it is told to, and remembers what it is asked. */
function slowServer() {
  const asked: string[] = []
  const waiting: ((answer: { data?: object; error?: object }) => void)[] = []
  vi.spyOn(client, 'POST').mockImplementation(((_path: string, init: { body: DrillFile }) => {
    asked.push(init.body.drill.name)
    return new Promise((done) =>
      waiting.push((answer) =>
        done({ ...answer, response: new Response(null, { status: answer.error ? 500 : 200 }) }),
      ),
    )
  }) as never)
  return {
    asked,
    async answer(data: object) {
      waiting.shift()?.({ data })
      await turn()
    },
    async fail(error: object) {
      waiting.shift()?.({ error })
      await turn()
    },
  }
}
const turn = () => new Promise((done) => setTimeout(done, 0))
const file = (name: string) => ({ drill: { name }, ladder: {} }) as unknown as DrillFile

afterEach(() => vi.restoreAllMocks())

describe('previews', () => {
  it('asks one at a time and always for the latest', async () => {
    const server = slowServer()
    const { preview, drawn, look } = usePreview()
    void look(file('a'), undefined)
    for (const name of ['b', 'c', 'd']) void look(file(name), undefined)
    await turn()
    expect(server.asked).toEqual(['a'])
    await server.answer({ faults: [], chart: { name: 'a' } })
    expect(server.asked).toEqual(['a', 'd']) // b and c were out of date already
    await server.answer({ faults: [{ field: 'pattern', text: 'No.' }] })
    expect(preview.value?.faults).toHaveLength(1)
    expect(drawn.value?.chart?.name).toBe('a') // the last one that could be drawn stays
  })
  it('tells a fault of the server and goes on', async () => {
    const server = slowServer()
    const { problem, preview, look } = usePreview()
    void look(file('a'), undefined)
    await turn()
    await server.fail({ title: 'Broken', detail: 'Try again.', type: 'urn:x:y', status: 500 })
    expect(problem.value?.detail).toBe('Try again.')
    void look(file('b'), undefined)
    await turn()
    await server.answer({ faults: [] })
    expect(problem.value).toBeUndefined()
    expect(preview.value?.faults).toEqual([])
  })
})
