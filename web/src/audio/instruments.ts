import { Problem, type Chart } from '../api/client'
import type { MidiEvent } from './struck'
import { soundBeat } from '../draw/rows'

/** Something that tells its notes by itself: it is listened to until it is closed. */
export interface Instrument {
  close: () => void
}
type Told = (event: MidiEvent) => void

/** Chooses the simulated device, which ships, in place of one that is plugged in. */
export const simulatedDevice = 'simulated'

/** The instruments that can be plugged in, by Web MIDI; none where the browser has no such thing. */
export async function midiInputs(): Promise<{ id: string; name: string }[]> {
  const access = await navigator.requestMIDIAccess?.().catch(() => undefined)
  return [...(access?.inputs.values() ?? [])].map((i) => ({ id: i.id, name: i.name ?? i.id }))
}

/** Listens to a MIDI instrument. onLost is called when it is unplugged. */
export async function openMidi(id: string, told: Told, onLost: () => void): Promise<Instrument> {
  if (!navigator.requestMIDIAccess)
    throw new Problem(
      'No MIDI can be used here',
      'This browser knows no MIDI, or the page is not on this machine or over https. Play with the microphone, or try another browser.',
    )
  const access = await navigator.requestMIDIAccess().catch(() => {
    throw new Problem(
      'MIDI was refused',
      'Allow MIDI for this page in the browser, then try again.',
    )
  })
  const input = access.inputs.get(id)
  if (!input)
    throw new Problem('The MIDI instrument is not there', 'Plug it in, or choose another.')
  input.onmidimessage = ({ data, timeStamp }) => {
    const [status = 0, midi = 0, velocity = 0] = data ?? []
    const kind = status & 0xf0
    if (kind === 0x90 || kind === 0x80)
      told({ at: timeStamp, midi, velocity: kind === 0x80 ? 0 : velocity })
  }
  const watch = () => access.inputs.get(id)?.state !== 'connected' && onLost()
  access.addEventListener('statechange', watch)
  return {
    close: () => {
      access.removeEventListener('statechange', watch)
      input.onmidimessage = null
    },
  }
}

/** Letters and digits are tapped on, unless they mean something at the stand; other keys keep their meaning. */
const taps = /^[a-z0-9]$/i
/** What a tapped key is told as: it has no pitch and no loudness. */
const tapped = { midi: 60, velocity: 80 }

/** Takes a computer key for a note: for timing alone. */
export function openKeys(told: Told, isFree: (key: string) => boolean): Instrument {
  const down = (event: KeyboardEvent) => {
    if (event.repeat || event.ctrlKey || event.metaKey || event.altKey) return
    if (!taps.test(event.key) || !isFree(event.key)) return
    event.preventDefault()
    event.stopImmediatePropagation()
    told({ at: event.timeStamp, ...tapped })
  }
  window.addEventListener('keydown', down, { capture: true })
  return { close: () => window.removeEventListener('keydown', down, { capture: true }) }
}

/** How far from its place the simulated device strikes a note, at most, in ms. */
const jitter = 6

/**
 * A simulated MIDI instrument, which plays a chart by itself from a moment of the page's
 * clock on, in ms: to try out how it is without one.
 */
export function openSimulated(chart: Chart, first: number, told: Told): Instrument {
  const beat = 60_000 / chart.bpm
  const notes = chart.notes
  const last = notes.at(-1)
  const pass = ((last?.beat ?? 0) + 1 / chart.notesPerBeat) * beat
  const timers: ReturnType<typeof setTimeout>[] = []
  let seed = 7 // the same each time, so that nobody takes it for a person
  const random = () => (seed = (seed * 16807) % 2147483647) / 2147483647
  for (let p = 0; p < (chart.passes ?? 1); p++)
    for (const note of notes) {
      const at = first + p * pass + soundBeat(chart, note) * beat + (2 * random() - 1) * jitter
      const velocity = 80 + Math.round(10 * random())
      const length = (0.9 * beat) / chart.notesPerBeat
      const tell = (when: number, v: number) =>
        timers.push(
          setTimeout(
            () => told({ at: when, midi: note.midi, velocity: v }),
            when - performance.now(),
          ),
        )
      tell(at, velocity)
      tell(at + length, 0)
    }
  return { close: () => timers.forEach(clearTimeout) }
}
