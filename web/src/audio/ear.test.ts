import { describe, expect, it, vi } from 'vitest'

import { Ear, type DeviceVerdict, type EarWorker, type FromEar, type Task, type ToEar } from './ear'

/** A worker that does what the test says. */
class Still implements EarWorker {
  readonly sent: ToEar[] = []
  private hear?: (event: MessageEvent<FromEar>) => void
  ended = false
  addEventListener: EarWorker['addEventListener'] = (on: string, hear: unknown) => {
    if (on === 'message') this.hear = hear as typeof this.hear
  }
  postMessage(message: ToEar) {
    this.sent.push(message)
  }
  terminate() {
    this.ended = true
  }
  say(data: FromEar) {
    this.hear?.({ data } as MessageEvent<FromEar>)
  }
}

const task = { rate: 48000 } as Task
const verdict = { measured: { decision: { step: 'up' } } } as DeviceVerdict

describe('the ear of the device', () => {
  it('rounds to 24 bits, as a recording is handed in', () => {
    const worker = new Still()
    const ear = new Ear(worker)
    ear.begin('one', task)
    ear.hear(Float32Array.from([0, 1, -1, 2, -0.5]))
    const heard = worker.sent[1] as Extract<ToEar, { kind: 'hear' }>
    expect([...heard.samples]).toEqual([0, 0x7fffff, -0x7fffff, 0x7fffff, -4194303])
  })

  it('answers with the verdict on the take that was asked about', async () => {
    const worker = new Still()
    const ear = new Ear(worker)
    ear.begin('one', task)
    const said = ear.end()
    worker.say({ kind: 'verdict', take: 'another', verdict: {} as DeviceVerdict })
    worker.say({ kind: 'verdict', take: 'one', verdict })
    expect(await said).toBe(verdict)
  })

  it('says nothing of a take that it could not hear, and hears the next', async () => {
    const worker = new Still()
    const ear = new Ear(worker)
    ear.begin('one', task)
    worker.say({ kind: 'failed', take: 'one', why: 'no notes were heard' })
    expect(await ear.end()).toBeUndefined()
    ear.begin('two', task)
    const said = ear.end()
    worker.say({ kind: 'verdict', take: 'two', verdict })
    expect(await said).toBe(verdict)
  })

  it('lets nobody wait for a core that has gone', async () => {
    vi.spyOn(console, 'warn').mockImplementation(() => undefined)
    const worker = new Still()
    const told: string[] = []
    const ear = new Ear(worker, (hearing) => told.push(hearing))
    worker.say({ kind: 'ready' })
    ear.begin('one', task)
    const said = ear.end()
    worker.say({ kind: 'gone', why: 'no memory' })
    expect(await said).toBeUndefined()
    expect(told).toEqual(['here', 'handed in'])
    ear.begin('two', task)
    expect(await ear.end()).toBeUndefined()
    expect(worker.sent).toHaveLength(2) // nothing more is sent to it
  })

  it('does not break the take off where it cannot be reached', async () => {
    vi.spyOn(console, 'warn').mockImplementation(() => undefined)
    const worker = new Still()
    worker.postMessage = () => {
      throw new DOMException('no room', 'DataCloneError')
    }
    const ear = new Ear(worker)
    ear.begin('one', task)
    ear.hear(new Float32Array(8))
    expect(await ear.end()).toBeUndefined()
  })

  it('lets nobody wait for long', async () => {
    vi.useFakeTimers()
    const ear = new Ear(new Still())
    ear.begin('one', task)
    const said = ear.end()
    vi.advanceTimersByTime(5000)
    expect(await said).toBeUndefined()
    vi.useRealTimers()
  })

  it('gives the take before up when another begins', async () => {
    const worker = new Still()
    const ear = new Ear(worker)
    ear.begin('one', task)
    const first = ear.end()
    ear.begin('two', task)
    expect(await first).toBeUndefined()
    worker.say({ kind: 'verdict', take: 'one', verdict })
    const second = ear.end()
    worker.say({ kind: 'verdict', take: 'two', verdict })
    expect(await second).toBe(verdict)
  })

  it('does without where the browser cannot', () => {
    vi.spyOn(console, 'warn').mockImplementation(() => undefined)
    const told = vi.fn()
    const ear = Ear.open(told, () => {
      throw new Error('no workers here')
    })
    expect(ear).toBeUndefined()
    expect(told).toHaveBeenCalledExactlyOnceWith('handed in')
  })
})
