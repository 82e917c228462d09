import { afterEach, describe, expect, it, vi } from 'vitest'

import type { Chart } from '../api/client'
import { openKeys, openMidi, openSimulated } from './instruments'
import { asTick, encodeMidi, StrikeLog, type MidiEvent } from './struck'

afterEach(() => {
  vi.unstubAllGlobals()
  vi.useRealTimers()
})

describe('notes that an instrument tells', () => {
  it('are written as a Standard MIDI File', async () => {
    const file = encodeMidi([
      { on: 0.5, off: 0.7, midi: 64, velocity: 90 },
      { on: 0.7, off: 0, midi: 65, velocity: 80 },
    ])
    const bytes = [...new Uint8Array(await file.arrayBuffer())]
    // The Complete MIDI 1.0 Detailed Specification, Standard MIDI Files 1.0: header, tempo,
    // then deltas of 5000 and 2000 ticks as 0xA7 0x08 and 0x8F 0x50.
    expect(bytes.slice(0, 14)).toEqual([77, 84, 104, 100, 0, 0, 0, 6, 0, 0, 0, 1, 0x27, 0x10])
    expect(bytes.slice(14, 22)).toEqual([77, 84, 114, 107, 0, 0, 0, bytes.length - 22])
    expect(bytes.slice(22)).toEqual([
      ...[0, 0xff, 0x51, 3, 0x0f, 0x42, 0x40],
      ...[0xa7, 0x08, 0x90, 64, 90],
      ...[0x8f, 0x50, 0x80, 64, 0],
      ...[0, 0x90, 65, 80],
      ...[0, 0xff, 0x2f, 0],
    ])
    expect(asTick(0.12345678)).toBe(0.1235)
  })

  it('are gathered from what is struck and let go, from the start on', () => {
    const log = new StrikeLog(1000)
    expect(log.take({ at: 900, midi: 60, velocity: 90 })).toBeUndefined() // before
    log.take({ at: 1500, midi: 64, velocity: 90 })
    log.take({ at: 1600, midi: 65, velocity: 80 })
    log.take({ at: 1700, midi: 64, velocity: 0 })
    log.take({ at: 1800, midi: 65, velocity: 70 }) // struck again without being let go
    expect(log.struck).toEqual([
      { on: 0.5, off: 0.7, midi: 64, velocity: 90 },
      { on: 0.6, off: 0.8, midi: 65, velocity: 80 },
      { on: 0.8, off: 0, midi: 65, velocity: 70 },
    ])
  })
})

describe('instruments', () => {
  it('are heard by Web MIDI, and it is told when they are unplugged', async () => {
    const access = new EventTarget() as EventTarget & { inputs: Map<string, object> }
    const input = { state: 'connected', onmidimessage: undefined as unknown }
    access.inputs = new Map([['one', input]])
    vi.stubGlobal('navigator', { requestMIDIAccess: async () => access })
    const told: MidiEvent[] = []
    const lost = vi.fn()
    const instrument = await openMidi('one', (e) => told.push(e), lost)
    const say = (...data: number[]) =>
      (input.onmidimessage as (e: object) => void)({ data, timeStamp: 5 })
    say(0x90, 64, 90)
    say(0x80, 64, 30)
    say(0xb0, 1, 2) // a pedal
    expect(told).toEqual([
      { at: 5, midi: 64, velocity: 90 },
      { at: 5, midi: 64, velocity: 0 },
    ])
    input.state = 'disconnected'
    access.dispatchEvent(new Event('statechange'))
    expect(lost).toHaveBeenCalledOnce()
    instrument.close()
    expect(input.onmidimessage).toBeNull()
    await expect(openMidi('two', () => undefined, lost)).rejects.toMatchObject({
      title: 'The MIDI instrument is not there',
    })
    vi.stubGlobal('navigator', {})
    await expect(openMidi('one', () => undefined, lost)).rejects.toMatchObject({
      title: 'No MIDI can be used here',
    })
  })

  it('a key is a note without a pitch; space and arrows stay what they are', () => {
    const page = new EventTarget()
    vi.stubGlobal('window', page)
    const told: MidiEvent[] = []
    const keys = openKeys(
      (e) => told.push(e),
      (key) => key !== 'h',
    )
    const press = (key: string, more = {}) => {
      const event = Object.assign(new Event('keydown', { cancelable: true }), { key, ...more })
      page.dispatchEvent(event)
      return event.defaultPrevented
    }
    expect(press('j')).toBe(true)
    expect(press(' ')).toBe(false)
    expect(press('h'), 'it hurts, and is heard').toBe(false)
    expect(press('j', { repeat: true })).toBe(false)
    keys.close()
    press('j')
    expect(told).toHaveLength(1)
  })

  it('the simulated one plays every note of every pass near its place', async () => {
    vi.useFakeTimers()
    const chart = {
      bpm: 120,
      notesPerBeat: 2,
      passes: 2,
      notes: [
        { beat: 0, midi: 60 },
        { beat: 0.5, midi: 62 },
      ],
    } as unknown as Chart
    const told: MidiEvent[] = []
    openSimulated(chart, 100, (e) => told.push(e))
    await vi.advanceTimersByTimeAsync(3000)
    const struck = told.filter((e) => e.velocity > 0)
    expect(struck.map((e) => e.midi)).toEqual([60, 62, 60, 62])
    const due = [100, 350, 600, 850]
    struck.forEach((e, i) => expect(Math.abs(e.at - due[i]!)).toBeLessThanOrEqual(6))
    expect(told).toHaveLength(8)
  })
})
