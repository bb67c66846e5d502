import type { Day } from '../calendar'
import { dayOf } from '../composition/facts'
import { sameSet } from '../following'
import type { SpanEnd } from '../composition/end-figures'
import { composeSpan, type Span } from '../following'
import type { ErrorLookup } from '../error/assessor'
import { verdictOf, Z_95, type Change } from '../error/change'
import { LONGEST_WEEKS } from './limits'
import { dayAfter, startOf, weeksTo, type Target, type TargetKind } from './target'

/** How far real paces scatter about the one planned, as a share of the way planned so far (our choice; 95 %). */
export const PACE_SPREAD = 0.25

const WEEK_MS = 7 * 24 * 60 * 60 * 1000

/** The line planned from a start: where it stands at an instant, with its band. All in the target's unit. */
export interface Forecast {
  at: string
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
}

/** A target put on the check-in it starts from; null where that holds no such figure. */
export function planLine(target: Target, start: SpanEnd, errors: ErrorLookup): PlanLine | null {
  const from = startOf(target.kind, start, errors)
  if (!from) return null
  const weeks = weeksTo(target, from.value)
  return {
    kind: target.kind,
    startedAt: start.facts.startedAt,
    startDay: dayOf(start.facts),
    from: from.value,
    startError: Z_95 * Math.sqrt(from.variance),
    to: target.value,
    perWeek: target.perWeek,
    weeks,
    endsOn: dayAfter(dayOf(start.facts), weeks),
  }
}

/** Way planned by an instant, signed: a straight line that stops at the target. */
function wayBy({ startedAt, from, to, weeks }: PlanLine, at: string): number {
  const share = weeks === 0 ? 1 : (Date.parse(at) - Date.parse(startedAt)) / WEEK_MS / weeks
  return (to - from) * Math.min(1, Math.max(0, share))
}

/** Where the plan stands at an instant. */
export function forecastAt(line: PlanLine, at: string): Forecast {
  const way = wayBy(line, at)
  return { at, planned: line.from + way, band: Math.hypot(line.startError, PACE_SPREAD * way) }
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
  const way = wayBy(line, at)
  const off = change.change - way
  const error = Math.hypot(change.error, PACE_SPREAD * way)
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
export function arrivalOf(line: PlanLine, { change, at, day, measured }: Against): Arrival | null {
  const days = (Date.parse(at) - Date.parse(line.startedAt)) / (WEEK_MS / 7)
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
