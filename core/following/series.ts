import type { Day } from '../calendar'
import { comparability } from '../composition/comparability'
import { endFigures, siteVariances, type Measured, type SpanEnd } from '../composition/end-figures'
import { dayOf } from '../composition/facts'
import { onTermsOf } from '../composition/terms'
import type { ErrorLookup } from '../error/assessor'
import { Z_95 } from '../error/change'
import { isFold, type GirthSiteId } from '../sites'
import { sameSet } from './ends'

/** One check-in of a followed figure, in the figure's own unit: kg, mm or cm. */
export interface SeriesPoint {
  /** ISO instant of the check-in, and the day it was where the studio is. */
  at: string
  day: Day
  value: number
  /** Half-width of the 95 % interval of measuring. */
  error: number
  /** How far the level may sit from the equation's line, the same at every visit; null where that is not known. */
  level: number | null
  /** True where it can be held against the later end. */
  comparable: boolean
}

/** What is drawn over time: fat and lean in kg, the sum in mm, and for sets without folds girths in cm. */
export interface FigureSeries {
  fat: SeriesPoint[]
  lean: SeriesPoint[]
  sum: SeriesPoint[]
  girths: { site: GirthSiteId; points: SeriesPoint[] }[]
}

/** Girths drawn for tape sets, the most telling first, three at most. */
const GIRTHS_DRAWN = ['waist', 'abdomen', 'hip', 'arm-relaxed', 'thigh-girth'] as const
const GIRTHS_AT_MOST = 3

/** A check-in weighed as the span is: by its week's mean, or by the weight at the visit. */
export function weighedAs<End extends SpanEnd>(end: End, byWeek: boolean): SpanEnd {
  if (byWeek) return end
  const { week: _, ...visit } = end
  return visit
}

function seeOf({ result }: SpanEnd): number | null {
  return result.estimate && 'percent' in result.estimate ? result.estimate.seePercent : null
}

function girthSeries(ends: readonly SpanEnd[], now: SpanEnd, errors: ErrorLookup): FigureSeries['girths'] {
  const sites = GIRTHS_DRAWN.filter((site) => now.result.values[site] !== undefined).slice(0, GIRTHS_AT_MOST)
  return sites.map((site) => ({
    site,
    points: ends.flatMap((end): SeriesPoint[] => {
      const value = end.result.values[site]
      if (value === undefined) return []
      const error = Z_95 * Math.sqrt(siteVariances(end, errors)[site] ?? 0)
      return [{ at: end.facts.startedAt, day: dayOf(end.facts), value, error, level: null, comparable: true }]
    }),
  }))
}

/**
 * Every check-in's figures over time, on the terms of `now`: its equation, folds, age and height say what can be
 * compared.
 * @param byWeek weights are the weeks' means, where a check-in has one
 */
export function figureSeries(
  ends: readonly SpanEnd[],
  now: SpanEnd,
  { errors, byWeek }: { errors: ErrorLookup; byWeek: boolean },
): FigureSeries {
  const tapeOnly = !now.facts.protocol.sites.some((site) => isFold(site))
  const series: FigureSeries = { fat: [], lean: [], sum: [], girths: tapeOnly ? girthSeries(ends, now, errors) : [] }
  for (const followed of ends) {
    const end = onTermsOf(weighedAs(followed, byWeek), now)
    const said = endFigures(end, errors)
    const comparable = followed === now || comparability(end, now).percent
    const see = seeOf(end)
    const half = see !== null && said.weight ? (said.weight.value * see) / 100 : null
    const point = ({ value, variance }: Measured, level: number | null, fits: boolean): SeriesPoint => ({
      at: end.facts.startedAt,
      day: dayOf(end.facts),
      value,
      error: Z_95 * Math.sqrt(variance),
      level,
      comparable: fits,
    })
    if (said.fat) series.fat.push(point(said.fat, half, comparable))
    if (said.lean) series.lean.push(point(said.lean, half, comparable))
    if (said.sum) series.sum.push(point(said.sum, null, sameSet(end, now)))
  }
  return series
}
