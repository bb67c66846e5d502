import { daysBetween, type Day } from '../calendar'
import { dayOf } from '../composition/facts'
import type { SpanEnd } from '../composition/end-figures'
import { onTermsOf } from '../composition/terms'
import { Z_95 } from '../error/interval'
import { ASSUMED_ERRORS, type ErrorModel } from '../error/model'
import {
  ASSUMED_NOISES,
  changeOf,
  copyingIn,
  endFigures,
  familyOf,
  figureOver,
  figureTerms,
  foldsAmong,
  chosenShare,
  lineOf,
  oddsOf,
  paceNow,
  realLine,
  sameSet,
  SIGN_ODDS,
  type Change,
  type FigureSeriesOf,
  type Noises,
  type PaceNow,
} from '../following'
import { LONGEST_WEEKS } from './limits'
import { straightCourse, type Course } from './course'
import { dynamicCourse, type PlanEnergy } from './dynamic-course'
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
  /** What the dynamic course was set with; null: a straight pace. */
  energy: PlanEnergy | null
  /** Where it means the figure to be. */
  course: Course
}

/**
 * A target put on the check-in it starts from; null where that holds no such figure.
 * @param energy what the course of the dynamic model is set with; without it the pace is straight
 */
export function planLine(target: Target, start: SpanEnd, energy: PlanEnergy | null = null): PlanLine | null {
  const from = startOf(target.kind, start)
  if (!from) return null
  const startDay = dayOf(start.facts)
  const own = endFigures(start)
  const dynamic =
    energy && target.kind !== 'sum' && own.fat && own.lean
      ? dynamicCourse({
          kind: target.kind,
          startDay,
          fatKg: own.fat.value,
          leanKg: own.lean.value,
          to: target.value,
          energy,
        })
      : null
  const weeks = dynamic?.weeks ?? weeksTo(target, from.value)
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
    energy: dynamic ? energy : null,
    course: dynamic ?? straightCourse({ startDay, from: from.value, to: target.value, weeks }),
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
  /** Best estimate of measured less planned, with its 95 % interval: of measuring and of the spread of paces. */
  off: number
  low: number
  high: number
  /** How much likelier the check-ins are off the plan than on it. */
  odds: number
  standing: 'on' | 'ahead' | 'behind'
  /** What changed since the start. */
  change: Change
  /** Where the smoothed course is now, and its pace of late. */
  pace: () => PaceNow | null
}

/** What check-ins are held against a plan with. */
export interface AgainstSettings {
  model?: ErrorModel
  noises?: Noises
}

/** The plan's figure over the check-ins since its start, on the terms of the last; null where they cannot be compared. */
function figureSince({ kind }: PlanLine, visits: readonly SpanEnd[], model: ErrorModel): FigureSeriesOf | null {
  const newest = visits.at(-1)
  const [start] = visits
  if (!newest || !start || newest === start) return null
  // A sum of fewer folds than the plan was set in says nothing about its target.
  if (kind === 'sum' && !sameSet(start, newest)) return null
  const ends = visits.map((end) => onTermsOf(end, newest))
  const now = ends.at(-1) as SpanEnd
  const summed = foldsAmong(now.result.session.sites.map(({ site }) => site))
  const over = figureOver(kind, ends, figureTerms(ends, now, model), { summed, model, copying: copyingIn(ends, model) })
  return over && over.ends[0] === ends[0] ? over : null
}

/**
 * A check-in held against a plan, by the whole history since its start: the check-ins less the way planned are asked for
 * the same odds as any change. Ahead or behind is said only over the line of real and with the interval, the spread of real
 * paces in it, on that side.
 * @param visits from the plan's start to the check-in
 * @returns null where the two ends cannot be compared in the target's unit
 */
export function againstPlan(
  line: PlanLine,
  visits: readonly SpanEnd[],
  { model = ASSUMED_ERRORS, noises = ASSUMED_NOISES }: AgainstSettings = {},
): Against | null {
  const over = figureSince(line, visits, model)
  const end = visits.at(-1)
  if (!over || !end) return null
  const noise = noises[familyOf(line.kind)]
  const change = changeOf(line.kind, over, { noise, line: lineOf(line.kind) })
  const wayAt = (day: Day) => line.course.at(day).value - line.from
  const days = over.ends.map(({ facts }) => dayOf(facts))
  const offs = over.series.values.map((value, i) => value - wayAt(days[i] ?? line.startDay))
  const found = oddsOf({ ...over.series, values: offs }, noise)
  if (!change || !found) return null
  const day = dayOf(end.facts)
  const spread = Z_95 * Math.sqrt(line.course.at(day).variance)
  const off = found.change
  const [low, high] = [off - Math.hypot(off - found.low, spread), off + Math.hypot(found.high - off, spread)]
  const asked = realLine(lineOf(line.kind), noise.learntFrom.followed) / chosenShare(1)
  const beyond = found.odds >= asked && (low > 0 || high < 0)
  const standing = !beyond ? 'on' : Math.sign(off) === Math.sign(line.to - line.from) ? 'ahead' : 'behind'
  const planned = change.then + wayAt(day)
  const at = end.facts.startedAt
  const pace = () => paceNow(over.series, noise)
  return { at, day, planned, measured: change.now, off, low, high, odds: found.odds, standing, change, pace }
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
 * The day of reaching the target at the pace of late from where the smoothed course is now, with its 95 % interval: the
 * course has an error of its own, and the pace is known about as well as the whole change.
 * @returns null when there is no sign of the change so far, it goes the other way or would take more than two years, or the
 * target is reached
 */
export function arrivalOf(line: PlanLine, { change, day, measured, pace: paceOf }: Against): Arrival | null {
  const towards = Math.sign(line.to - line.from)
  if (daysBetween(line.startDay, day) <= 0 || change.odds < SIGN_ODDS || Math.sign(change.change) !== towards)
    return null
  if ((line.to - measured) * towards <= 0) return null
  const now = paceOf()
  if (!now) return null
  const left = Math.max(0, (line.to - now.value) * towards)
  const pace = (now.perWeek * towards) / 7
  if (!(pace > 0) || left / pace > FARTHEST_DAYS) return null
  const on = left / pace
  const [slow, fast] = [change.low, change.high].map((one) => (pace * one) / change.change).sort((a, b) => a - b) as [
    number,
    number,
  ]
  // The course's own error moves the whole line; the pace's opens it like a fan.
  const off = now.error / pace
  const earliest = on - Math.hypot(on - left / fast, off)
  const latest = slow > 0 ? on + Math.hypot(left / slow - on, off) : Infinity
  const dayAt = (after: number) => dayAfter(day, Math.max(0, after) / 7)
  return { on: dayAt(on), earliest: dayAt(earliest), latest: latest <= FARTHEST_DAYS ? dayAt(latest) : null }
}

/** Whether the target is reached: `yes` when measured beyond it or on it, said `surely` when the whole interval is. */
export function reachedBy({ to, from }: PlanLine, { measured, change }: Against): 'surely' | 'yes' | 'no' {
  const towards = Math.sign(to - from)
  if ((measured - to) * towards < 0) return 'no'
  const least = (change.change < 0 ? change.high : change.low) + from
  return (least - to) * towards > 0 ? 'surely' : 'yes'
}
