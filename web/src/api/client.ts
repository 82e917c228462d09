import createClient from 'openapi-fetch'

import type { components, paths } from './schema'

type Schemas = components['schemas']
export type Person = Schemas['Person']
export type Here = Schemas['Here']
export type House = Schemas['House']
export type Member = Schemas['Member']
export type Group = Schemas['Group']
export type RosterRow = Schemas['Roster']['rows'][number]
export type AuditLine = Schemas['AuditLine']
export type Letter = Schemas['Letter']
export type Studio = Schemas['Studio']
export type DrillFile = Schemas['DrillFile']
export type Drill = Schemas['Drill']
export type DrillPart = Schemas['DrillPart']
export type Pattern = Schemas['Pattern']
export type PatternOf<K extends Pattern['kind']> = Extract<Pattern, { kind: K }>
export type Path = Schemas['Path']
export type Key = Schemas['Key']
export type Bench = Schemas['Bench']
export type Family = Schemas['Family']
export type ReadySet = Schemas['ReadySet']
export type Remark = Schemas['Remark']
export type Mend = Schemas['Mend']
export type Damping = Schemas['Damping']
export type PlacedChord = Schemas['PlacedChord']
export type Difficulty = Schemas['Difficulty']
export type Variety = Schemas['Variety']
export type Setup = Schemas['Setup']
export type Shelf = Schemas['Shelf']
export type Version = Schemas['Version']
export type Block = Schemas['Block']
export type SavedBlock = Schemas['SavedBlock']
export type Export = Schemas['Export']
export type Ladder = Schemas['Ladder']
export type Gate = Schemas['Gate']
export type Rung = Schemas['Rung']
export type Climb = Schemas['Climb']
export type Move = Schemas['Move']
export type Misfit = Schemas['Misfit']
export type TakeComment = Schemas['TakeComment']
export type Chart = Schemas['Chart']
export type ChartNote = Schemas['ChartNote']
export type Neck = Schemas['Neck']
export type ImportedDrill = Schemas['ImportedDrill']
export type Preview = Schemas['Preview']
export type SavedDrill = Schemas['SavedDrill']
export type Assignment = Schemas['Assignment']
export type Stand = Schemas['Stand']
export type Take = Schemas['Take']
export type TakeSummary = Schemas['TakeSummary']
export type Pupil = Schemas['Pupil']
export type Binned = Schemas['Binned']
export type Routine = Schemas['Routine']
export type HandReport = Schemas['HandReport']
export type HandRecord = Schemas['HandRecord']
export type RoutineItem = Schemas['RoutineItem']
export type Enough = Schemas['Enough']
export type SavedRoutine = Schemas['SavedRoutine']
export type ReadyRoutine = Schemas['ReadyRoutine']
export type SavedSetup = Schemas['SavedSetup']
export type ReachStep = Schemas['ReachStep']
export type Remeasuring = Schemas['Remeasuring']
type TakeFigures = Schemas['TakeFigures']
export type Analysis = Schemas['Analysis']
export type HeardNote = Schemas['HeardNote']
export type Transition = Schemas['Transition']
export type Figure = Schemas['Figure']
export type Comment = Schemas['Comment']
export type Contrast = Schemas['Contrast']
export type ExtraNote = Schemas['ExtraNote']
export type CourseEvent = Schemas['CourseEvent']
export type Correction = Schemas['Correction']
export type Contradictions = Schemas['Contradictions']
export type Habit = Schemas['Habit']
export type Climbing = Schemas['Climbing']
export type Decision = Schemas['Decision']
export type Player = Schemas['Player']
export type Trend = Schemas['Trend']
export type WaitingTake = Schemas['WaitingTake']
export type Review = Schemas['Review']
export type UnreadReview = Schemas['UnreadReview']
export type Lesson = Schemas['Lesson']
export type LessonNote = Schemas['LessonNote']
export type Plan = Schemas['Plan']
export type PlanWeek = Schemas['PlanWeek']
export type PlanDay = Schemas['PlanDay']
export type PlanLine = Schemas['PlanLine']
export type PlanRule = Schemas['PlanRule']
export type PlanSettings = Schemas['PlanSettings']
export type PlanGoal = Schemas['PlanGoal']
export type PlanExercise = Schemas['PlanExercise']
export type SavedPlan = Schemas['SavedPlan']
export type GoalSaid = Schemas['GoalSaid']
export type Everybody = Schemas['Everybody']
export type BroughtIn = Schemas['BroughtIn']
export type Paper = Schemas['Paper']
export type PaperColumn = Schemas['PaperColumn']
export type PaperDates = Schemas['PaperDates']
export type PaperPreview = Schemas['PaperPreview']
export type Glance = Schemas['Glance']
export type GlanceStudent = Schemas['GlanceStudent']
export type GlanceOrder = Schemas['GlanceOrder']
export type GlanceWhy = Schemas['GlanceWhy']
export type GlanceDrill = Schemas['GlanceDrill']
export type Need = Schemas['Need']
export type Finding = Schemas['Finding']
export type Forecast = Schemas['Forecast']
export type State = Schemas['State']
export type Overview = Schemas['Overview']
export type OverviewWeek = Schemas['OverviewWeek']
export type OverviewDrill = Schemas['OverviewDrill']
export type OverviewGroup = Schemas['OverviewGroup']
export type Fault = Schemas['Fault']
export type Attack = Schemas['Attack']
export type Source = Schemas['Source']
type ProblemBody = Schemas['Problem']
export type Advice = Schemas['Advice']

/** A take's summary once it is measured. */
export type MeasuredSummary = TakeSummary & { measured: TakeFigures }

/** A take once it is measured. */
export type MeasuredTake = Take & {
  summary: MeasuredSummary
  analysis: Analysis
  advice: Advice
}

export function isMeasured(take: Take): take is MeasuredTake {
  return !!take.analysis && !!take.advice && !!take.summary.measured
}

/** What went wrong, in the words of the server, and what to do. */
export class Problem extends Error {
  constructor(
    readonly title: string,
    readonly detail: string,
    readonly status = 0,
    readonly kind = '',
  ) {
    super(detail)
  }
}

const unreachable = new Problem(
  'Manudrill cannot be reached',
  'The server does not answer. Check that it is running, then try again; nothing you made is lost.',
)

/** Whether a problem says that something was changed by somebody else meanwhile. */
export function isChanged(thrown: unknown): boolean {
  return thrown instanceof Problem && thrown.status === 412
}

let nobody: () => void = () => undefined
/** Says what is done when the server says that nobody is signed in any more. */
export function onNobody(then: () => void): void {
  nobody = then
}

export const client = createClient<paths>({ baseUrl: '/api' })

/** Unwraps an answer; a problem becomes an exception. */
export async function answer<T>(
  call: Promise<{ data?: T; error?: ProblemBody; response: Response }>,
): Promise<T> {
  let got
  try {
    got = await call
  } catch {
    throw unreachable
  }
  if (got.error === undefined && got.response.ok) return got.data as T
  const problem = problemFrom(got.error, got.response.status)
  if (problem.kind === 'nobody') nobody()
  throw problem
}

function problemFrom(body: ProblemBody | undefined, status: number): Problem {
  if (!body?.detail)
    return new Problem('Something went wrong', `The server answered ${status}.`, status)
  return new Problem(body.title, body.detail, status, body.type.split(':').at(-1) ?? '')
}

/** The problem to show for anything that was thrown. */
export function problemOf(thrown: unknown): Problem {
  if (thrown instanceof Problem) return thrown
  console.error(thrown)
  return new Problem('Something went wrong on this page', 'Reload the page; nothing saved is lost.')
}
