import type { Day } from '../calendar'
import type { SpanEnd } from '../composition/end-figures'
import { ASSUMED_ERRORS, markOf, readingVariance, siteVisitVariance, type ErrorModel } from '../error/model'
import {
  familyOf,
  figureTerms,
  foldsAmong,
  lineOf,
  varianceTeller,
  visitsUntilTold,
  weightsOf,
  type Noises,
} from '../following'
import type { PlanLine } from './against'
import { dayAfter } from './target'

/** How well a plan's pace would be told from no change. */
export interface Telling {
  /** Check-ins, the first counted; null: not within 27. */
  visits: number | null
  /** The day of the one that tells. */
  day: Day | null
}

/** A way of following a plan, with when it would tell its pace. */
export interface WayOfTelling extends Telling {
  /** Measured as at the start, with four readings a site, or followed by the sum of so many folds. */
  way: { kind: 'as-now' } | { kind: 'readings'; readings: number } | { kind: 'folds'; folds: number }
  weeksApart: number
}

/**
 * How many check-ins at a cadence tell a plan's pace from no change, for this assessor with this set.
 * @param variance of the plan's figure at a visit, unit squared
 */
export function toldAfter(line: PlanLine, weeksApart: number, variance: number, noises: Noises): Telling {
  const perWeek = (line.to - line.from) / Math.max(line.weeks, 1e-9)
  const visits = visitsUntilTold(
    perWeek,
    { weeksApart, variance, line: lineOf(line.kind) },
    noises[familyOf(line.kind)],
  )
  return { visits, day: visits === null ? null : dayAfter(line.startDay, (visits - 1) * weeksApart) }
}

const CADENCES = [1, 2, 4] as const
const MORE_READINGS = 4
/** Sets of few and of many folds. */
const FOLD_COUNTS = [3, 7, 9] as const
/** The cadence the other ways are compared at, weeks. */
const USUAL_WEEKS = 4

/** Variance of a sum of so many folds of one thickness at a visit, two readings each, mm squared. */
function sumVariance(count: number, foldMm: number, model: ErrorModel): number {
  const single = readingVariance('triceps', foldMm, markOf('triceps'), model)
  return count * siteVisitVariance(single, 2, model) + (model.dayShare * foldMm * count) ** 2
}

/**
 * Ways of following a plan side by side: how often, how many readings a site, how many folds. A sum of folds is taken to
 * fall by the same share as the target's figure.
 * @param start the check-in the plan starts from
 */
export function waysOfTelling(
  line: PlanLine,
  start: SpanEnd,
  noises: Noises,
  model: ErrorModel = ASSUMED_ERRORS,
): WayOfTelling[] {
  const sites = foldsAmong(start.result.session.sites.map(({ site }) => site))
  const terms = figureTerms([start], start, model)
  const weights = weightsOf(line.kind, terms, sites)
  if (!weights) return []
  const { reading, mark, day, weight, bend } = varianceTeller(weights, terms, { model })(start, false)
  const own = reading + mark + day + weight + bend
  const repeats = Math.max(1, ...start.result.session.sites.map(({ live }) => live.length))
  const ways: WayOfTelling[] = CADENCES.map((weeksApart) => ({
    way: { kind: 'as-now' },
    weeksApart,
    ...toldAfter(line, weeksApart, own, noises),
  }))
  if (line.kind === 'weight') return ways
  ways.push({
    way: { kind: 'readings', readings: MORE_READINGS },
    weeksApart: USUAL_WEEKS,
    ...toldAfter(line, USUAL_WEEKS, own - reading + (reading * repeats) / MORE_READINGS, noises),
  })
  const folds = sites.flatMap((site) => start.result.values[site] ?? [])
  if (folds.length === 0) return ways
  const foldMm = folds.reduce((sum, one) => sum + one, 0) / folds.length
  const share = (line.to - line.from) / Math.max(line.weeks, 1e-9) / line.from
  for (const count of FOLD_COUNTS) {
    const variance = sumVariance(count, foldMm, model)
    const visits = visitsUntilTold(share * count * foldMm, { weeksApart: USUAL_WEEKS, variance }, noises.sum)
    ways.push({
      way: { kind: 'folds', folds: count },
      weeksApart: USUAL_WEEKS,
      visits,
      day: visits === null ? null : dayAfter(line.startDay, (visits - 1) * USUAL_WEEKS),
    })
  }
  return ways
}
