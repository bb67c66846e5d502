import { daysBetween, type Day } from '../calendar'
import { dayOf } from '../composition/facts'
import { sameSet } from '../following'
import type { SpanEnd } from '../composition/end-figures'
import { composeSpan, type Span } from '../following'
import type { ErrorLookup } from '../error/assessor'
import { verdictOf, Z_95, type Change } from '../error/change'
import { LONGEST_WEEKS } from './limits'
import { straightCourse, type Course } from './course'
import { dayAfter, startOf, weeksTo, type Target, type TargetKind } from './target'

/** Where a plan stands on a day, with its band. All in the target's unit. */
export interface Forecast {
  day: Day
  planned: number
  /** Half-width of the 95 % band: error of the start and spread of the pace. */
  band: number
}

/** A plan put on its start. */
export interface PlanLine {
  kind: TargetKind
  /** ISO instant of the check-in it starts from, and its day. */
  startedAt: string
  startDay: Day
  from: number
  /** Half-width of the 95 % error of the start. */
  startError: number
  to: number
  perWeek: number
  weeks: number
  /** ISO day on which it is there. */
  endsOn: string
  /** Where it means the figure to be. */
  course: Course
}

/** A target put on the check-in it starts from; null where that holds no such figure. */
export function planLine(target: Target, start: SpanEnd, errors: ErrorLookup): PlanLine | null {
  const from = startOf(target.kind, start, errors)
  if (!from) return null
  const weeks = weeksTo(target, from.value)
  const startDay = dayOf(start.facts)
  return {
    kind: target.kind,
    startedAt: start.facts.startedAt,
    startDay,
    from: from.value,
    startError: Z_95 * Math.sqrt(from.variance),
    to: target.value,
    perWeek: target.perWeek,
    weeks,
    endsOn: dayAfter(startDay, weeks),
    course: straightCourse({ startDay, from: from.value, to: target.value, weeks }),
  }
}

/** Where the plan stands on a day. */
export function forecastAt({ course, startError }: PlanLine, day: Day): Forecast {
  const { value, variance } = course.at(day)
  return { day, planned: value, band: Math.hypot(startError, Z_95 * Math.sqrt(variance)) }
}

/** What a check-in says about a plan. */
export interface Against {
  at: string
  /** The calendar day of the check-in. */
  day: Day
  planned: number
  measured: number
  /** Measured less planned. */
  off: number
  /** Half-width of what measuring at both ends and the spread of paces explain, 95 %. */
  error: number
  standing: 'on' | 'ahead' | 'behind'
  change: Change
}

function changeIn(kind: TargetKind, span: Span, start: SpanEnd, end: SpanEnd): Change | null {
  // A sum of fewer folds than the plan was set in says nothing about its target.
  return kind === 'sum' && !sameSet(start, end) ? null : span[kind]
}

/**
 * A check-in held against a plan. Ahead or behind is said only beyond error: the change since the start is compared
 * with the change planned, so that what sits on both ends alike stays out of it.
 * @returns null where the two check-ins cannot be compared in the target's unit
 */
export function againstPlan(line: PlanLine, start: SpanEnd, end: SpanEnd, errors: ErrorLookup): Against | null {
  const change = changeIn(line.kind, composeSpan(start, end, errors), start, end)
  if (!change) return null
  const at = end.facts.startedAt
  const meant = line.course.at(dayOf(end.facts))
  const way = meant.value - line.from
  const off = change.change - way
  const error = Math.hypot(change.error, Z_95 * Math.sqrt(meant.variance))
  const beyond = verdictOf(off, (error / Z_95) ** 2) === 'real'
  // A week's mean at one end only: the change is of the weights at the visits, and so is the start.
  const planned = change.then + way
  const standing = !beyond ? 'on' : Math.sign(off) === Math.sign(line.to - line.from) ? 'ahead' : 'behind'
  return { at, day: dayOf(end.facts), planned, measured: change.now, off, error, standing, change }
}

/** Days ahead that a pace is carried on for: beyond two years it says nothing. */
const FARTHEST_DAYS = 7 * LONGEST_WEEKS

/** When the target is reached at the pace kept so far. ISO days; `latest` is null where no end can be told. */
export interface Arrival {
  on: string
  earliest: string
  latest: string | null
}

/**
 * The day of reaching the target at the pace measured from the start to a check-in, with its interval.
 * @returns null when the change so far is within error, goes the other way or would take more than two years, or the
 * target is reached
 */
export function arrivalOf(line: PlanLine, { change, day, measured }: Against): Arrival | null {
  const days = daysBetween(line.startDay, day)
  const left = line.to - measured
  const towards = Math.sign(line.to - line.from)
  if (!(days > 0) || change.verdict === 'within error' || Math.sign(change.change) !== towards) return null
  if (left * towards <= 0) return null
  const daysAt = (way: number) => (Math.abs(left) * days) / Math.abs(way)
  const [fast, slow] = [Math.abs(change.change) + change.error, Math.abs(change.change) - change.error]
  if (daysAt(change.change) > FARTHEST_DAYS) return null
  const dayAt = (way: number) => dayAfter(day, daysAt(way) / 7)
  return {
    on: dayAt(change.change),
    earliest: dayAt(fast),
    latest: slow > 0 && daysAt(slow) <= FARTHEST_DAYS ? dayAt(slow) : null,
  }
}

/** Whether the target is reached: `yes` when measured beyond it or on it, said `surely` when beyond error. */
export function reachedBy({ to, from }: PlanLine, { measured, change }: Against): 'surely' | 'yes' | 'no' {
  const past = (measured - to) * Math.sign(to - from)
  if (past < 0) return 'no'
  return past > change.error ? 'surely' : 'yes'
}
