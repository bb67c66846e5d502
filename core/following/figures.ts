import { dayNumber } from '../calendar'
import { conditionChanges } from '../composition/conditions'
import { estimateInputs, weightOf, type SpanEnd } from '../composition/end-figures'
import { dayOf } from '../composition/facts'
import { comparability } from '../composition/comparability'
import { gradientOf, type Gradient } from '../error/gradient'
import { readingVariance, siteVisitVariance, weighingVariance, type ErrorModel } from '../error/model'
import { asSite, isFold, type SiteId } from '../sites'
import type { OddsSeries } from './odds'

/** What is followed: the figures of a check-in, and each site by itself. */
export type FigureId = 'sum' | 'fat' | 'lean' | 'percent' | 'weight' | SiteId

/** How a figure depends on what is measured, at the client's mean values: its change a mm, cm or kg. */
interface Weights {
  sites: Partial<Record<SiteId, number>>
  /** By the weight at the visit, or the mean of its week. */
  weight: number
}

/** Marks a caliper or tape is read to, mm and cm. */
const MARK = { fold: 0.5, girth: 0.1 } as const

function meanOf(values: readonly number[]): number {
  return values.reduce((sum, one) => sum + one, 0) / values.length
}

/** Mean of every site's value over the visits that hold it. */
function meanSites(ends: readonly SpanEnd[]): Partial<Record<SiteId, number>> {
  const sums = new Map<SiteId, number[]>()
  for (const { result } of ends) {
    for (const [site, value] of Object.entries(result.values) as [SiteId, number][]) {
      const own = sums.get(site)
      if (own) own.push(value)
      else sums.set(site, [value])
    }
  }
  return Object.fromEntries([...sums].map(([site, values]) => [site, meanOf(values)]))
}

/** What the figures of one client's visits hang on, computed once: a dragged jaw asks for the same again. */
export interface FigureTerms {
  means: Partial<Record<SiteId, number>>
  weightKg: number | null
  gradient: Gradient | null
  percent: number | null
}

/** The terms of a client's visits: mean site values, mean weight, and the equation's slopes there. */
export function figureTerms(ends: readonly SpanEnd[], now: SpanEnd): FigureTerms {
  const means = meanSites(ends)
  const weights = ends.flatMap((end) => weightOf(end)?.value ?? [])
  const weightKg = weights.length > 0 ? meanOf(weights) : null
  const inputs = estimateInputs(now)
  if (!inputs) return { means, weightKg, gradient: null, percent: null }
  const measures = { ...inputs.measures, ...means, ...(weightKg === null ? {} : { weight: weightKg }) }
  const percents = ends.flatMap((end) => estimateInputs(end)?.reached.percent ?? [])
  return {
    means,
    weightKg,
    gradient: gradientOf(inputs.reached.equation, measures, inputs.settings),
    percent: percents.length > 0 ? meanOf(percents) : null,
  }
}

function weightsOf(
  figure: FigureId,
  { gradient, weightKg, percent }: FigureTerms,
  summed: readonly SiteId[],
): Weights | null {
  const none: Weights = { sites: {}, weight: 0 }
  if (figure === 'weight') return { ...none, weight: 1 }
  if (figure === 'sum') return { ...none, sites: Object.fromEntries(summed.map((site) => [site, 1])) }
  if (figure !== 'percent' && figure !== 'fat' && figure !== 'lean') return { ...none, sites: { [figure]: 1 } }
  if (!gradient) return null
  const slopes = Object.entries(gradient).flatMap(([input, slope]) => {
    const site = asSite(input)
    return site ? [[site, slope] as const] : []
  })
  const byWeight = gradient.weight ?? 0
  if (figure === 'percent') return { sites: Object.fromEntries(slopes), weight: byWeight }
  if (weightKg === null || percent === null) return null
  const sign = figure === 'fat' ? 1 : -1
  const fatByWeight = percent / 100 + (weightKg / 100) * byWeight
  return {
    sites: Object.fromEntries(slopes.map(([site, slope]) => [site, (sign * weightKg * slope) / 100])),
    weight: figure === 'fat' ? fatByWeight : 1 - fatByWeight,
  }
}

/** A figure's value at a visit; null where it is not there. */
function valueOf(figure: FigureId, end: SpanEnd, summed: readonly SiteId[]): number | null {
  const { values } = end.result
  if (figure === 'sum') {
    const all = summed.map((site) => values[site])
    return summed.length > 0 && all.every((one) => one !== undefined) ? all.reduce((a, b) => a + b, 0) : null
  }
  if (figure === 'weight') return weightOf(end)?.value ?? null
  if (figure !== 'percent' && figure !== 'fat' && figure !== 'lean') return values[figure] ?? null
  const percent = estimateInputs(end)?.reached.percent
  if (percent === undefined) return null
  if (figure === 'percent') return percent
  const kg = weightOf(end)?.value
  if (kg === undefined) return null
  return figure === 'fat' ? (kg * percent) / 100 : kg * (1 - percent / 100)
}

/** Variance of a figure at a visit as the model takes it, at the client's mean values, unit squared. */
function varianceOf(
  end: SpanEnd,
  weights: Weights,
  { means, weightKg }: FigureTerms,
  model: ErrorModel,
  differs: boolean,
) {
  let [own, day] = [0, 0]
  for (const [site, slope] of Object.entries(weights.sites) as [SiteId, number][]) {
    const mean = means[site] ?? 0
    const fold = isFold(site)
    const readings = end.result.session.sites.find((row) => row.site === site)?.live.length ?? 1
    const reading = readingVariance(site, mean, fold ? MARK.fold : MARK.girth, model)
    own += slope ** 2 * siteVisitVariance(reading, readings, model)
    if (fold) day += slope * mean
  }
  const dayShare = model.dayShare * (differs ? model.conditionsFactor : 1)
  const weighed = weightKg === null ? 0 : weighingVariance(weightKg, end.week?.count ?? 1, model)
  return own + (dayShare * day) ** 2 + weights.weight ** 2 * weighed
}

/** Who measured with which caliper, as far as that is known. */
function handOf({ facts }: SpanEnd): string {
  return `${facts.assessorId ?? ''} ${facts.caliper?.id ?? ''}`
}

/** One figure of a client over their visits, with the ends it was taken from. */
export interface FigureSeriesOf {
  series: OddsSeries
  ends: SpanEnd[]
}

/**
 * A figure over visits that can be compared with the last of them, on its terms, each with the variance the model takes.
 * @param ends on the terms of the last (see `onTermsOf`), oldest first
 * @param summed the folds a sum is of
 * @returns null with fewer than two visits that hold it
 */
export function figureOver(
  figure: FigureId,
  ends: readonly SpanEnd[],
  terms: FigureTerms,
  { summed, model }: { summed: readonly SiteId[]; model: ErrorModel },
): FigureSeriesOf | null {
  const now = ends.at(-1)
  const weights = weightsOf(figure, terms, summed)
  if (!now || !weights) return null
  const byEquation = figure === 'fat' || figure === 'lean' || figure === 'percent'
  const held = ends.filter(
    (end) => valueOf(figure, end, summed) !== null && (!byEquation || end === now || comparability(end, now).percent),
  )
  const first = held[0]
  if (!first || held.length < 2 || held.at(-1) !== now) return null
  const start = dayNumber(dayOf(first.facts))
  const conditions = first.facts.conditions ?? {}
  const hands = Object.entries(weights.sites) as [SiteId, number][]
  return {
    ends: held,
    series: {
      weeks: held.map((end) => (dayNumber(dayOf(end.facts)) - start) / 7),
      values: held.map((end) => valueOf(figure, end, summed) ?? NaN),
      variances: held.map((end) =>
        varianceOf(end, weights, terms, model, conditionChanges(conditions, end.facts.conditions ?? {}).length > 0),
      ),
      hands: held.map(handOf),
      offsetVariance: hands.reduce(
        (sum, [site, slope]) => sum + (slope * model.handShare * (terms.means[site] ?? 0)) ** 2,
        0,
      ),
    },
  }
}
