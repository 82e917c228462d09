import { ref, shallowRef } from 'vue'

import {
  isMeasured,
  problemOf,
  type Problem,
  type MeasuredTake,
  type Routine,
  type Rung,
  type Stand,
  type Take,
} from '../../api/client'
import { nothing, type DeviceVerdict, type Said } from '../../audio/ear'
import type { RunEvent, StandCore, Told } from '../../audio/standCore'
import type { UnsentTake } from '../../audio/unsent'
import { climbed } from '../stand/climbed'
import { heardHere, saysOtherwise } from '../stand/heardHere'
import { standKey } from '../../api/routines'
import { asTempo, atTempo, stepOf } from '../stand/ownTempo'
import { brokenOff, type Besides, type Ending } from '../stand/recording'

/** What a run needs of the stand it is on. */
export interface OnStand {
  core: StandCore
  /** A recording is under way. */
  running: () => boolean
  /** Counts in and records; may throw a Problem. */
  start: (stand: Stand, besides?: Besides) => Promise<void>
  /** Breaks a recording off. */
  stop: () => Promise<void>
  /** Hands a take in; then is told once the studio has judged it, which may be much later. */
  handIn: (made: UnsentTake, then: (take: Take) => void) => Promise<void>
  /** Keeps a take that nobody played on, for a while. */
  setAside: (made: UnsentTake) => Promise<void>
  /** What lies on the stand of an assignment by the studio's word, in a position. */
  standNow: (assignmentId: string, position?: number) => Promise<Stand>
  /** Seconds on a clock that only runs on. */
  now: () => number
  /** Seconds between takes. */
  pause: () => number
  /** The first drill begins with a take to warm up. */
  warmUp: () => boolean
}

const differ = (a: Rung, b: Rung): boolean => a.bpm !== b.bpm || a.notesPerBeat !== b.notesPerBeat

/** At which share of the rung one warms up. */
const warm = 0.7

/** How often it is looked whether something ends by itself, in ms. */
const beat = 200

/**
 * Runs a routine on a stand. What comes next the core decides; here it is told what
 * happens, one thing after the other, and done what it says.
 */
export function useRun(routine: Routine, stands: Map<string, Stand>, on: OnStand) {
  const told = shallowRef<Told>()
  const now = ref(on.now())
  const problem = shallowRef<Problem>()
  /** What this device says of the last take; cleared when the next begins. */
  const verdict = shallowRef<DeviceVerdict>()
  const silent = ref(false)
  /** The drill of which the studio has said another rung than this device. */
  const otherwise = ref<string>()
  /** The stand of the item that is played, or of the one that comes next. */
  const stand = shallowRef<Stand>()
  /** The tempo of one's own at which the item is played, beside the ladder. */
  const own = ref<number>()
  /** The take that is played, or was last, is to warm up. */
  const warming = ref(false)
  let warmed = false
  let doing: Promise<unknown> = Promise.resolve()
  let left = false

  /** Tells the core what happens, once what happened before has been seen to. */
  function tell(event: Omit<RunEvent, 'at'>): Promise<void> {
    const next = doing.then(async () => {
      if (left) return
      const before = told.value?.state
      const asks = { routine, state: before ?? {}, event: { ...event, at: on.now() } }
      told.value = await on.core.ask('step', asks)
      const { phase, item } = told.value.state
      const anew = before?.phase !== 'playing' || before.item !== item || event.key === 'repeat'
      await obey(phase === 'playing', anew)
    })
    doing = next.catch((thrown) => (problem.value = problemOf(thrown)))
    return next.catch(() => undefined)
  }

  /** What lies on the stand for an item. */
  function lying(item: number): Stand | undefined {
    const { drill, position } = routine.items[item] ?? {}
    return drill === undefined ? undefined : stands.get(standKey(drill, position))
  }

  /** Does what the core says: a take is played, a new one perhaps, or none. */
  async function obey(playing: boolean, anew: boolean) {
    const next = lying(told.value!.then)
    if (stand.value?.assignment.id !== next?.assignment.id) own.value = undefined
    stand.value = next
    if (playing && !anew) return
    if (on.running()) await on.stop()
    if (!playing) return
    problem.value = verdict.value = undefined
    silent.value = false
    otherwise.value = undefined
    warming.value = on.warmUp() && !warmed
    warmed = true
    try {
      await startTake(stand.value!)
    } catch (thrown) {
      void tell({ key: 'failed' })
      throw thrown
    }
  }

  /** Plays what lies on the stand: at its rung, or beside the ladder. */
  async function startTake(at: Stand) {
    const bpm = warming.value ? asTempo(warm * at.chart.bpm) : own.value
    if (bpm === undefined) return on.start(at)
    stand.value = await atTempo(at, bpm, on.core)
    await on.start(stand.value, { aside: 'ownTempo' })
  }

  /** Changes the tempo at which the item is played from the next take on. */
  function change(way: 1 | -1) {
    const at = lying(told.value?.then ?? -1)
    if (!at) return
    const bpm = asTempo((own.value ?? at.chart.bpm) + way * stepOf(at))
    own.value = bpm === at.chart.bpm ? undefined : bpm
  }

  const press = (key: RunEvent['key']): Promise<void> => tell({ key })

  /** A recording has ended; said is what this device says of it. */
  async function ended(made: UnsentTake, ending: Ending, said?: Said): Promise<void> {
    if (ending === 'stopped') return // by a key, which says what is next
    const broken = brokenOff(ending, 'What was played until then is kept. Press space to go on.')
    if (broken) {
      problem.value = broken
      return tell({ key: 'failed' })
    }
    const heard = said !== nothing && !(said && said.analysis.foreign)
    silent.value = said === nothing
    if (said === nothing) await on.setAside(made)
    else {
      const ours = said && stand.value && heardHere(made, stand.value, said)
      await on.handIn(made, (take) => void hearStudio(take, ours))
    }
    if (said && said !== nothing) {
      verdict.value = said
      if (!made.take.aside) await climb(made.take.assignmentId, said)
    }
    const clean = !!said && said !== nothing && said.clean
    await tell({ key: 'ended', heard, clean, aside: warming.value, pause: on.pause() })
  }

  /** Lays the rung that the ladder says now, for the next take. */
  async function climb(assignmentId: string, said: DeviceVerdict) {
    for (const [id, was] of stands)
      if (was.assignment.id === assignmentId) stands.set(id, await climbed(was, said, on.core))
  }

  /**
   * The studio decides: where it says otherwise than this device did, its rung is the next
   * one played, and that is said.
   */
  async function hearStudio(take: Take, ours?: MeasuredTake) {
    if (left || !isMeasured(take) || (ours && !saysOtherwise(take, ours))) return
    for (const [id, was] of stands) {
      if (was.assignment.id !== take.summary.assignmentId) continue
      const now = await on.standNow(was.assignment.id, was.position).catch(() => undefined)
      if (!now) return // with the next answer
      if (!differ(was.assignment.rung, now.assignment.rung)) continue
      stands.set(id, now)
      if (ours) otherwise.value = now.assignment.drillName
    }
  }

  const clock = setInterval(() => {
    now.value = on.now()
    const phase = told.value?.state.phase
    if (phase === 'pausing' || phase === 'resting' || phase === 'reading' || phase === 'playing')
      void tell({ key: 'tick' })
  }, beat)
  /** Leaves the run; nothing is done any more that the core may say. */
  function close() {
    left = true
    clearInterval(clock)
  }

  return {
    told,
    now,
    problem,
    verdict,
    silent,
    otherwise,
    stand,
    own,
    warming,
    press,
    change,
    ended,
    close,
  }
}
