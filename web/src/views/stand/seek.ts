import { ref, shallowRef } from 'vue'

import { Problem, problemOf, type Stand } from '../../api/client'
import { nothing, type Said } from '../../audio/ear'
import type { Seeking, StandCore } from '../../audio/standCore'
import { brokenOff, type Besides, type Ending } from './recording'

/** What a search needs of the stand it is on. */
export interface OnStand {
  core: StandCore
  /** Counts in and listens; may throw a Problem. */
  start: (stand: Stand, besides: Besides) => Promise<void>
  stop: () => Promise<void>
  /** Bars that are counted in before each take. */
  barsCountedIn: () => number
  /** Seconds on a clock that only runs on. */
  now: () => number
  later: (action: () => void, ms: number) => void
}

/** How long what is said of a short take is read, in ms. */
const reading = 1600

/**
 * Finds the clean tempo of a drill by short takes, one after the other. Of these nothing is
 * kept; what comes next the core decides.
 */
export function useSeek(stand: () => Stand, on: OnStand) {
  const phase = ref<'before' | 'playing' | 'reading' | 'held' | 'over'>('before')
  const seeking = shallowRef<Seeking>()
  const last = ref<'clean' | 'unclean' | 'unheard'>()
  const problem = shallowRef<Problem>()
  let began = 0
  let left = false

  /** What the core says comes next. */
  function ask(more: { take?: typeof last.value; seconds?: number } = {}): Promise<Seeking> {
    const { drill, guitar, hand, chart, climbing, assignment } = stand()
    return on.core.ask('seek', {
      drill,
      guitar,
      hand,
      ladder: climbing.ladder,
      notesPerBeat: chart.notesPerBeat,
      from: assignment.rung.bpm,
      search: seeking.value?.search,
      barBeats: on.barsCountedIn() * (chart.beatsPerBar ?? 4),
      ...more,
    })
  }

  async function attempt(action: () => Promise<void>) {
    try {
      await action()
    } catch (thrown) {
      problem.value = problemOf(thrown)
      phase.value = 'held'
    }
  }

  /** Plays the next short take. */
  const play = () =>
    attempt(async () => {
      const next = seeking.value?.next
      if (left || !next) return
      phase.value = 'playing'
      began = on.now()
      await on.start(
        { ...stand(), ...next },
        { passing: (ending, said) => void ended(ending, said) },
      )
    })

  async function ended(ending: Ending, said?: Said) {
    if (left || phase.value !== 'playing') return
    if (ending !== 'finished' || !said) {
      phase.value = 'held'
      problem.value =
        ending === 'finished' ? deaf : brokenOff(ending, 'The search waits for the same key.')
      return
    }
    await attempt(async () => {
      if (said === nothing) last.value = 'unheard'
      else last.value = said.clean ? 'clean' : 'unclean'
      const seconds = on.now() - began + reading / 1000
      seeking.value = await ask({ take: last.value, seconds })
      phase.value = seeking.value.next ? 'reading' : 'over'
      if (seeking.value.next) on.later(() => phase.value === 'reading' && void play(), reading)
    })
  }

  /** The one key: begins, holds, goes on, or begins anew. */
  async function go() {
    problem.value = undefined
    if (phase.value === 'playing' || phase.value === 'reading') {
      phase.value = 'held'
      return on.stop()
    }
    await attempt(async () => {
      if (phase.value !== 'held' || !seeking.value) {
        seeking.value = last.value = undefined
        seeking.value = await ask()
      }
      await play()
    })
  }
  const leave = () => void (left = true)

  return { phase, seeking, last, problem, go, leave }
}

const deaf = new Problem(
  'This device cannot judge a take now',
  'So it cannot find your tempo. Load the page again, or try another browser.',
)
