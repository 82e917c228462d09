import type { Stand } from '../api/client'
import { decoded, monoOf } from './decode'
import { Ear, nothing } from './ear'

/** How long a file is heard at the most before nothing is proposed, in ms. */
const within = 60_000

/** How much of a file is heard for its tempo, in s. */
const longest = 120

/** How much of a file is handed to the ear at once, in samples. */
const slice = 2 ** 16

/**
 * The tempo at which a file was played, in whole bpm, as this device hears it; none where
 * it cannot tell, as of another drill.
 */
export async function tempoHeard(
  file: File,
  { assignment, chart, climbing, school }: Stand,
  open: () => Ear | undefined = () => Ear.open(() => undefined),
): Promise<number | undefined> {
  const sound = await decoded(file)
  const ear = sound && open()
  if (!sound || !ear) return undefined
  try {
    ear.begin(file.name, { rate: sound.sampleRate, chart, rung: assignment.rung, climbing, school })
    const mono = monoOf(sound).subarray(0, longest * sound.sampleRate)
    for (let at = 0; at < mono.length; at += slice) ear.hear(mono.subarray(at, at + slice))
    const said = await ear.end(within)
    if (!said || said === nothing || said.analysis.foreign) return undefined
    return Math.round(said.analysis.tempo.bpm)
  } finally {
    ear.close()
  }
}
