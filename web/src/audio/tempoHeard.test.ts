import { afterEach, expect, it, vi } from 'vitest'

import type { Stand } from '../api/client'
import type { DeviceVerdict, Ear } from './ear'
import { tempoHeard } from './tempoHeard'

const stand = { assignment: { rung: {} }, chart: {}, climbing: {} } as Stand
const file = new File([new Uint8Array(10)], 'kitchen.m4a')

afterEach(() => vi.unstubAllGlobals())

/** A browser that decodes so many seconds of whatever it is given. */
function browser(seconds = 3) {
  vi.stubGlobal(
    'OfflineAudioContext',
    class {
      async decodeAudioData() {
        return {
          sampleRate: 44100,
          numberOfChannels: 1,
          getChannelData: () => new Float32Array(seconds * 44100),
        }
      }
    },
  )
}

/** An ear that says what it is told to, and counts. */
function earThatSays(verdict: DeviceVerdict | undefined) {
  const ear = { begin: vi.fn(), hear: vi.fn(), end: vi.fn(async () => verdict), close: vi.fn() }
  return { ear, open: () => ear as unknown as Ear }
}
const said = (foreign: boolean) =>
  ({ analysis: { foreign, tempo: { bpm: 107.6 } } }) as unknown as DeviceVerdict

it('is what the ear says of the whole file, in whole bpm', async () => {
  browser()
  const { ear, open } = earThatSays(said(false))
  expect(await tempoHeard(file, stand, open)).toBe(108)
  const samples = ear.hear.mock.calls.reduce((n, [x]) => n + (x as Float32Array).length, 0)
  expect(samples).toBe(3 * 44100)
  expect(ear.close).toHaveBeenCalledOnce()
})

it('is that of the first two minutes', async () => {
  browser(600)
  const { ear, open } = earThatSays(said(false))
  await tempoHeard(file, stand, open)
  const samples = ear.hear.mock.calls.reduce((n, [x]) => n + (x as Float32Array).length, 0)
  expect(samples).toBe(120 * 44100)
})

it('is not told of another drill, nor of what cannot be heard', async () => {
  browser()
  for (const verdict of [said(true), undefined]) {
    const { ear, open } = earThatSays(verdict)
    expect(await tempoHeard(file, stand, open)).toBeUndefined()
    expect(ear.close).toHaveBeenCalledOnce()
  }
  expect(await tempoHeard(file, stand, () => undefined)).toBeUndefined()
})

it('is not told of what the browser cannot decode', async () => {
  const { ear, open } = earThatSays(said(false))
  expect(await tempoHeard(file, stand, open)).toBeUndefined()
  expect(ear.begin).not.toHaveBeenCalled()
})
