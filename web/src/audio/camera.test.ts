import { afterEach, expect, it, vi } from 'vitest'

import { Camera, mostBytes } from './camera'

afterEach(() => vi.unstubAllGlobals())

const track = { stop: vi.fn() }
/** A recorder that gives so many bytes once it is stopped. */
function recorderOf(size: number) {
  return class {
    state = 'inactive'
    mimeType = 'video/webm'
    ondataavailable?: (e: { data: Blob }) => void
    onstop?: () => void
    onstart?: () => void
    start() {
      this.state = 'recording'
      this.onstart?.()
    }
    stop() {
      this.state = 'inactive'
      const data = { size, slice: () => data } as unknown as Blob
      this.ondataavailable?.({ data: size > 1000 ? data : new Blob([new Uint8Array(size)]) })
      this.onstop?.()
    }
  }
}
function withCamera(size: number) {
  const getUserMedia = vi.fn(async () => ({ getTracks: () => [track] }))
  vi.stubGlobal('navigator', { mediaDevices: { getUserMedia } })
  vi.stubGlobal('MediaRecorder', recorderOf(size))
  return getUserMedia
}

it('films without sound, and tells when it began against the sound', async () => {
  const asked = withCamera(12)
  const camera = await Camera.open()
  expect(asked).toHaveBeenCalledWith({ video: expect.anything() })
  camera!.start()
  const film = await camera!.stop(performance.now() - 250)
  expect(film?.blob.size).toBe(12)
  expect(film?.startsAt).toBeGreaterThan(0.2)
  expect(film?.startsAt).toBeLessThan(0.3)
  expect(await camera!.stop(0)).toBeUndefined() // there is nothing more
  camera!.close()
  expect(track.stop).toHaveBeenCalled()
})

it('keeps nothing that is empty or too large', async () => {
  withCamera(0)
  const camera = await Camera.open()
  camera!.start()
  expect(await camera!.stop(0)).toBeUndefined()
  vi.stubGlobal(
    'Blob',
    class {
      size = mostBytes + 1
    },
  )
  camera!.start()
  expect(await camera!.stop(0)).toBeUndefined()
})

it('a take is played without a camera that is refused or not there', async () => {
  vi.spyOn(console, 'warn').mockReturnValue()
  const getUserMedia = vi.fn(async () => Promise.reject(new Error('refused')))
  vi.stubGlobal('MediaRecorder', recorderOf(1))
  vi.stubGlobal('navigator', { mediaDevices: { getUserMedia } })
  expect(await Camera.open()).toBeUndefined()
  vi.stubGlobal('navigator', {})
  expect(await Camera.open()).toBeUndefined()
})
