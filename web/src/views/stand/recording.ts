import { onBeforeUnmount, ref, shallowRef, watch } from 'vue'

import { Problem, type Chart, type Stand } from '../../api/client'
import { newId } from '../../api/ids'
import { painOf } from '../../api/pain'
import { Metronome } from '../../audio/metronome'
import {
  Ear,
  newEarWorker,
  type EarWorker,
  type Hearing,
  type Marked,
  type Said,
} from '../../audio/ear'
import { Camera, filming } from '../../audio/camera'
import { delayNow } from '../../audio/delay'
import { InputLevel } from '../../audio/input'
import {
  openKeys,
  openMidi,
  openSimulated,
  simulatedDevice,
  type Instrument,
} from '../../audio/instruments'
import { chosenMicrophone } from '../../audio/microphones'
import { isOver, Playing } from '../../audio/playing'
import { Recorder } from '../../audio/recorder'
import { momentOf, scheduleOf, type Moment, type Schedule } from '../../audio/schedule'
import { StandCore } from '../../audio/standCore'
import { StrikeLog, type MidiEvent } from '../../audio/struck'
import { UnsentTake } from '../../audio/unsent'
import { person } from '../../session'
import { keyOf } from '../routine/keys'
import { click, live, voice, volume } from './choices'
import { soundBeat } from '../../draw/rows'

/** How many notes that an instrument tells are kept in one go. */
const keptEach = 8

/**
 * Tells when something of the audio clock sounds, by the page's clock, in ms. The two are
 * compared once: on a busy machine two readings of them are many milliseconds apart, and what
 * is measured by one of them would be late by the other.
 */
function soundingClock(ctx: AudioContext): (at: number) => number {
  const { contextTime, performanceTime } = ctx.getOutputTimestamp()
  const zero =
    contextTime && performanceTime
      ? performanceTime - 1000 * contextTime
      : performance.now() - 1000 * (ctx.currentTime - (ctx.outputLatency || 0))
  return (at) => zero + 1000 * at
}

/** What is heard now was handed to the output a little earlier. */
const soundedUntil = (ctx: AudioContext) => ctx.currentTime - (ctx.outputLatency || 0)

/**
 * How a recording came to its end: lost is the microphone, that was unplugged perhaps, and
 * interrupted the sound of the whole device, by a call or by sleep.
 */
export type Ending = 'finished' | 'stopped' | 'lost' | 'interrupted'

/** What is said of a recording that came to an end by nobody's wish. */
export function brokenOff(ending: Ending, then: string): Problem | undefined {
  if (ending === 'lost')
    return new Problem('The input went away', `Plug it in again, or choose another. ${then}`)
  if (ending === 'interrupted')
    return new Problem(
      'The sound was interrupted',
      `A call, another program or sleep has taken it away. ${then}`,
    )
}

/** How something is played that is no take of the rung on the stand. */
export interface Besides {
  /** It counts for nothing, and why. */
  aside?: 'ownTempo' | 'tryOut' | 'tapped'
  /** On what it is played; else the microphone hears it. */
  on?: { midi: string } | 'key'
  /** Nothing is kept of it: only what is said of it is told. */
  passing?: (ending: Ending, said?: Said) => void
}

/**
 * Runs count-in, metronome and microphone for one take after another. What is
 * recorded is kept in the browser from the first chunk on.
 */
export function useRecording(
  onEnd: (take: UnsentTake, ending: Ending, said?: Said) => void,
  onNoRoom: () => void,
) {
  const running = ref(false)
  const moment = shallowRef<Moment>({})
  /** How loud the microphone is, from when it has been opened on. */
  const input = shallowRef<InputLevel>()
  /** Counts what has come from it: the level does not tell by itself that it has changed. */
  const heard = ref(0)
  /** What has become of the notes of the take that is played, by their index over all passes. */
  const marks = shallowRef(new Map<number, Marked>())
  /** Whether takes are judged on this device. */
  const hearing = ref<Hearing>('loading')

  let context: AudioContext | undefined
  let recorder: Recorder | undefined
  let metronome: Metronome | undefined
  let worker: EarWorker | undefined
  const ear = Ear.open(
    (told) => (hearing.value = told),
    () => (worker = newEarWorker()),
    (told) => {
      const all = new Map(marks.value)
      for (const { index, is } of told) all.set(index, is)
      marks.value = all
    },
  )
  /** What the stand asks of the same core; none where this device has no such thing. */
  const core = worker && new StandCore(worker)
  /** What is recorded: kept as a take, or passing. */
  let take: { id: string; kept?: UnsentTake; passing?: Besides['passing'] } | undefined
  /** Films the hands where that is asked for; filmed is when the sound of its take begins, by the page's clock in ms. */
  let camera: Camera | undefined
  let filmed: number | undefined
  const films = ref(false)
  watch(filming, (on) => {
    if (on || running.value) return
    camera?.close()
    camera = undefined
  })
  /** What tells its notes by itself, and what it has told, while such a take is played. */
  let instrument: Instrument | undefined
  let struck: StrikeLog | undefined
  let clock: ReturnType<typeof setInterval> | undefined
  let frame = 0
  let left = false
  let opening: Promise<void> | undefined

  /** The clock of all that sounds. */
  async function openContext(): Promise<AudioContext> {
    void navigator.storage?.persist?.() // so that recordings are not the first to go
    context ??= newContext()
    await context.resume()
    return context
  }

  /** Opens the microphone where it is not open yet; may throw a Problem. */
  async function openMicrophone(): Promise<AudioContext> {
    const context = await openContext()
    opening ??= openRecorder(context)
    try {
      await opening
    } catch (thrown) {
      opening = undefined // so that it is asked for again
      throw thrown
    }
    return context
  }

  /** A call, or a device that sleeps, takes the sound away: then there is nothing to end a take by. */
  function newContext(): AudioContext {
    const made = new AudioContext({ latencyHint: 'interactive' })
    made.onstatechange = () => {
      if (made.state !== 'running' && running.value) void end('interrupted')
    }
    return made
  }

  async function openRecorder(ctx: AudioContext) {
    const level = new InputLevel(ctx.sampleRate)
    const opened = await Recorder.open(
      ctx,
      chosenMicrophone.value,
      (samples) => {
        level.hear(samples)
        heard.value++
      },
      async () => {
        if (recorder !== opened) return
        recorder = opening = input.value = undefined
        await opened.stop() // what comes from now on is silence, and no part of a take
        opened.close()
        if (running.value) void end('lost')
      },
    )
    if (left) return opened.close() // the page was left while the browser asked
    recorder = opened
    input.value = level
  }

  /** Opens the microphone that is chosen now in place of the one before. */
  async function choose() {
    if (running.value) return
    await opening?.catch(() => undefined)
    recorder?.close()
    recorder = opening = undefined
    await openMicrophone()
  }

  async function start(stand: Stand, { aside, passing, on }: Besides = {}) {
    const { chart, beatsPerPass, assignment, climbing, school } = stand
    const ctx = on ? await openContext() : await openMicrophone()
    if (!on && !recorder)
      throw new Problem('The input went away', 'Plug it in again, then press Play.')
    const id = newId()
    const { bpm, free, passes = 1, beatsPerBar = 4, notesPerBeat } = chart
    const unsent = () => ({
      id,
      assignmentId: assignment.id,
      personId: person.value?.id ?? assignment.student.id,
      drillName: assignment.drillName,
      bpm,
      notesPerBeat,
      version: assignment.version,
      position: stand.position,
      aside,
      rise: chart.riseBpm,
      ...(on && { source: on === 'key' ? ('key' as const) : ('midi' as const) }),
      rate: ctx.sampleRate,
      startedAt: new Date().toISOString(),
      frames: 0,
    })
    const wanted = !passing && assignment.video && filming.value
    if (wanted) camera ??= await Camera.open()
    const film = wanted ? camera : undefined
    const strikes = on && (await openStrikes(on))
    // All is there that may be refused.
    const kept = passing ? undefined : new UnsentTake(unsent(), onNoRoom)
    films.value = !!film
    take = { id, kept, passing }
    marks.value = new Map()
    const start = ctx.currentTime + 0.15
    const asked = { bpm, beatsPerPass, passes, beatsPerBar, free, rise: chart.riseBpm }
    const schedule = scheduleOf(asked, start, click.value)
    const interval = 60 / bpm / notesPerBeat
    /** Begins to hear what is recorded from a moment of the audio clock on. */
    const begin = (from: number, delay: number | undefined) => {
      const first = schedule.first - from
      if (kept && delay !== undefined) kept.take.clickAt = first + delay
      const heard = { rate: ctx.sampleRate, first, delay, marks: live.value }
      const rung = { bpm, notesPerBeat }
      const hurt = climbing.hurt || !!painOf(assignment.student.id) // the studio may not know yet
      ear?.begin(id, { ...heard, chart, rung, climbing: { ...climbing, hurt }, school, aside })
      filmed = film && performance.now() + 1000 * (from - ctx.currentTime)
      film?.start() // which takes a busy machine its time
    }
    /** By what is played and its clock: the screen may be dark. */
    const watch = (playing: Pick<Playing, 'idle' | 'paused'>) => {
      if (isOver(soundedUntil(ctx), schedule, interval, playing)) void end('finished')
    }
    if (strikes) strikes(chart, ctx, schedule, { kept, begin, watch })
    else listen(ctx, { kept, begin, watch })
    metronome = new Metronome(ctx, { ...voice.value, volume: volume.value / 100 })
    metronome.play(schedule.clicks)
    running.value = true
    const beats = chart.notes.map((n) => soundBeat(chart, n))
    follow(ctx, schedule, (now) => momentOf(schedule, beats, beatsPerPass, now))
  }

  /** What a way of hearing a take does with it. */
  interface Taking {
    kept?: UnsentTake
    begin: (from: number, delay: number | undefined) => void
    watch: (playing: Pick<Playing, 'idle' | 'paused'>) => void
  }

  /** Records what the microphone hears. */
  function listen(ctx: AudioContext, { kept, begin, watch }: Taking) {
    const playing = new Playing(ctx.sampleRate)
    let begun = false
    recorder?.start((samples, from) => {
      if (!begun) begin(from / ctx.sampleRate, delayNow()?.seconds)
      begun = true
      kept?.append(samples)
      ear?.hear(samples)
      playing.hear(samples)
      watch(playing)
    })
  }

  /** Opens an instrument, which may be refused; then what is struck on it is kept. */
  async function openStrikes(on: NonNullable<Besides['on']>) {
    let told: (event: MidiEvent) => void = () => undefined
    if (on !== 'key' && on.midi !== simulatedDevice)
      instrument = await openMidi(
        on.midi,
        (event) => told(event),
        () => void end('lost'),
      )
    return (chart: Chart, ctx: AudioContext, schedule: Schedule, taking: Taking) => {
      const soundsAt = soundingClock(ctx)
      told = keepStrikes(soundsAt, schedule, taking)
      if (on === 'key') instrument = openKeys(told, (key) => keyOf(key) === undefined)
      else instrument ??= openSimulated(chart, soundsAt(schedule.first), told)
    }
  }

  /** Keeps what is struck, and returns what takes it in. Its clock is the page's. */
  function keepStrikes(
    soundsAt: (at: number) => number,
    schedule: Schedule,
    { kept, begin, watch }: Taking,
  ) {
    const from = schedule.clicks[0]?.at ?? schedule.first
    const log = new StrikeLog(soundsAt(from))
    struck = log
    begin(from, 0) // the moment at which it sounds is known
    clock = setInterval(() => {
      const idle = log.idleAt(performance.now())
      watch({ idle, paused: log.paused })
    }, 50)
    return (event: MidiEvent) => {
      const note = log.take(event)
      if (!note) return
      ear?.strike(note)
      if (log.struck.length % keptEach === 0) kept?.strike(log.struck)
    }
  }

  /** Shows where the audio clock is until the take is over. */
  function follow(ctx: AudioContext, schedule: Schedule, momentAt: (now: number) => Moment) {
    const now = soundedUntil(ctx)
    const next = now < schedule.end ? momentAt(now) : {}
    // Drawing only what has changed leaves the machine to the recording.
    if (JSON.stringify(next) !== JSON.stringify(moment.value)) moment.value = next
    frame = requestAnimationFrame(() => follow(ctx, schedule, momentAt))
  }

  async function end(ending: Ending) {
    const played = take // another may have begun before the verdict is there
    if (!running.value || !played) return
    running.value = false
    cancelAnimationFrame(frame)
    metronome?.stop()
    clearInterval(clock)
    instrument?.close()
    instrument = undefined
    const strokes = struck?.struck
    struck = undefined
    if (strokes) played.kept?.strike(strokes)
    else if (ending !== 'lost') await recorder?.stop()
    moment.value = {}
    const judged = ending === 'finished' ? ear?.end(undefined, strokes) : undefined
    const sound = filmed
    filmed = undefined
    films.value = false
    const film = sound === undefined ? undefined : await camera?.stop(sound)
    if (film) played.kept?.film(film)
    const [said] = await Promise.all([judged, played.kept?.kept()])
    if (played.kept) onEnd(played.kept, ending, said)
    else played.passing?.(ending, said)
  }

  onBeforeUnmount(() => {
    left = true
    cancelAnimationFrame(frame)
    metronome?.stop()
    clearInterval(clock)
    instrument?.close()
    camera?.close()
    recorder?.close()
    ear?.close()
    void context?.close()
  })

  const stop = () => end('stopped')
  return { running, moment, input, heard, hearing, marks, films, core, start, choose, stop }
}
