import type { Day } from '../calendar'
import { samePercent } from '../composition/comparability'
import { reachedOf, type Measured, type SpanEnd } from '../composition/end-figures'
import { dayOf } from '../composition/facts'
import { onTermsOf } from '../composition/terms'
import { ASSUMED_ERRORS, type ErrorModel } from '../error/model'
import { Z_95 } from '../error/interval'
import { isFold, type GirthSiteId } from '../sites'
import { noiseOf } from './change'
import { endFigures } from './end-figures'
import { sameSet } from './ends'
import { figureAt } from './figures'
import { ASSUMED_NOISES, familyOf, type Noises } from './learning'
import { figureTerms, type FigureId } from './weights'

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
const GIRTHS_DRAWN = ['waist', 'abdomen', 'hip', 'arm-relaxed', 'mid-thigh-girth', 'thigh-girth'] as const
const GIRTHS_AT_MOST = 3

/** What the error of a point is taken from. */
export interface SeriesSettings {
  model?: ErrorModel
  noises?: Noises
}

/** Half-width of the 95 % interval of a figure at a visit, its noise as learnt. */
function errorAt(figure: FigureId, variance: number, noises: Noises): number {
  return Z_95 * noiseOf(noises[familyOf(figure)], variance).sd
}

/** The girths drawn for a set without folds. */
export function girthsDrawn(now: SpanEnd): GirthSiteId[] {
  if (now.facts.protocol.sites.some((site) => isFold(site))) return []
  return GIRTHS_DRAWN.filter((site) => now.result.values[site] !== undefined).slice(0, GIRTHS_AT_MOST)
}

function girthSeries(
  ends: readonly SpanEnd[],
  now: SpanEnd,
  { model = ASSUMED_ERRORS, noises = ASSUMED_NOISES }: SeriesSettings,
): FigureSeries['girths'] {
  return girthsDrawn(now).map((site) => ({
    site,
    points: ends.flatMap((end): SeriesPoint[] => {
      const found = figureAt(site, end, figureTerms([end], end, model), { summed: [], model })
      if (!found) return []
      const error = errorAt(site, found.variance, noises)
      return [
        { at: end.facts.startedAt, day: dayOf(end.facts), value: found.value, error, level: null, comparable: true },
      ]
    }),
  }))
}

/**
 * Every check-in's figures over time, on the terms of `now`: its equation, folds, age and height say what can be
 * compared.
 */
export function figureSeries(ends: readonly SpanEnd[], now: SpanEnd, settings: SeriesSettings = {}): FigureSeries {
  const { model = ASSUMED_ERRORS, noises = ASSUMED_NOISES } = settings
  const series: FigureSeries = { fat: [], lean: [], sum: [], girths: girthSeries(ends, now, settings) }
  for (const followed of ends) {
    const end = onTermsOf(followed, now)
    const said = endFigures(end, model)
    const comparable = followed === now || samePercent(end, now)
    const see = reachedOf(end)?.seePercent ?? null
    const half = see !== null && said.weight ? (said.weight.value * see) / 100 : null
    const point = (of: FigureId, { value, variance }: Measured, level: number | null, fits: boolean): SeriesPoint => ({
      at: end.facts.startedAt,
      day: dayOf(end.facts),
      value,
      error: errorAt(of, variance, noises),
      level,
      comparable: fits,
    })
    if (said.fat) series.fat.push(point('fat', said.fat, half, comparable))
    if (said.lean) series.lean.push(point('lean', said.lean, half, comparable))
    if (said.sum) series.sum.push(point('sum', said.sum, null, sameSet(end, now)))
  }
  return series
}
