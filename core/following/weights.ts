import { samePercent } from '../composition/comparability'
import { estimateInputs, reachedOf, weightOf, type SpanEnd } from '../composition/end-figures'
import { gradientOf, type Gradient } from '../error/gradient'
import { curvatureOf } from '../error/curvature'
import type { ErrorModel } from '../error/model'
import { asSite, isFold, type SiteId } from '../sites'
import type { LineKind } from './verdict'

/** Limbs whose girth has its fold taken off. */
export const LIMBS = [
  { limb: 'arm', girth: 'arm-relaxed', folds: ['triceps-kin', 'triceps'] },
  { limb: 'thigh', girth: 'mid-thigh-girth', folds: ['front-thigh', 'thigh'] },
  { limb: 'calf', girth: 'calf-girth', folds: ['medial-calf'] },
] as const

export type Limb = (typeof LIMBS)[number]['limb']

/** The figures of a check-in that an equation gives. */
export type EquationFigure = 'fat' | 'lean' | 'percent'

/** What is followed: the figures of a check-in, what lean gained over fat, limbs without their fold, and each site. */
export type FigureId =
  | 'sum'
  | EquationFigure
  | 'lean-less-fat'
  | 'weight'
  | 'week-weight'
  | `corrected-${Limb}`
  | SiteId

/** How a figure depends on what is measured, at the client's mean values: its change a mm, cm or kg. */
export interface Weights {
  sites: Partial<Record<SiteId, number>>
  /** By the weight at the visit. */
  weight: number
  /** By the mean of its week; left out: not at all. */
  week?: number
  /** Variance by the equation's bend, beyond what its slopes carry: near a turning point. Unit squared. */
  bend: number
}

/** What the figures of one client's visits hang on, computed once: a dragged jaw asks for the same again. */
export interface FigureTerms {
  means: Partial<Record<SiteId, number>>
  weightKg: number | null
  gradient: Gradient | null
  percent: number | null
  /** Variance of percent by the equation's bend, points squared. */
  bend: number
  /** Visits whose percent can be compared with the last one's. */
  percentOf: ReadonlySet<SpanEnd>
}

/** cm of girth a mm of fold takes off: pi by tenths. */
const CM_PER_MM = Math.PI / 10

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

/** Terms without an equation: mean site values only, for what is followed by sites alone. */
export function siteTerms(ends: readonly SpanEnd[]): FigureTerms {
  return { means: meanSites(ends), weightKg: null, gradient: null, percent: null, bend: 0, percentOf: new Set() }
}

/** The terms of a client's visits: mean site values, mean weight, and the equation's slopes and bend there. */
export function figureTerms(ends: readonly SpanEnd[], now: SpanEnd, model: ErrorModel): FigureTerms {
  const means = meanSites(ends)
  const weights = ends.flatMap((end) => weightOf(end) ?? [])
  const weightKg = weights.length > 0 ? meanOf(weights) : null
  const inputs = estimateInputs(now)
  if (!inputs) return { means, weightKg, gradient: null, percent: null, bend: 0, percentOf: new Set() }
  const { equation } = inputs.reached
  const measures = { ...inputs.measures, ...means, ...(weightKg === null ? {} : { weight: weightKg }) }
  const percents = ends.flatMap((end) => reachedOf(end)?.percent ?? [])
  const gradient = gradientOf(equation, measures, inputs.settings)
  return {
    means,
    weightKg,
    gradient,
    percent: percents.length > 0 ? meanOf(percents) : null,
    bend: curvatureOf(equation, measures, inputs.settings, model, gradient),
    percentOf: new Set(ends.filter((end) => end === now || samePercent(end, now))),
  }
}

/** The limb a figure is the corrected girth of, with the fold that is taken off it; null: another figure. */
export function limbOf(
  figure: FigureId,
  held: (site: SiteId) => boolean,
): { girth: SiteId; fold: SiteId } | 'unread' | null {
  const limb = LIMBS.find((one) => figure === `corrected-${one.limb}`)
  if (!limb) return null
  const fold = limb.folds.find(held)
  return fold && held(limb.girth) ? { girth: limb.girth, fold } : 'unread'
}

/** True for a figure that an equation gives. */
export function isByEquation(figure: FigureId): figure is EquationFigure | 'lean-less-fat' {
  return figure === 'fat' || figure === 'lean' || figure === 'percent' || figure === 'lean-less-fat'
}

/** Which line of real a figure has. */
export function lineOf(figure: FigureId): LineKind {
  return figure === 'weight' || figure === 'week-weight' || figure === 'lean' || figure === 'lean-less-fat'
    ? 'weight'
    : 'sum'
}

/** How a figure hangs on what is measured; null where it cannot be had. */
export function weightsOf(
  figure: FigureId,
  { gradient, weightKg, percent, means, bend }: FigureTerms,
  summed: readonly SiteId[],
): Weights | null {
  const none: Weights = { sites: {}, weight: 0, bend: 0 }
  if (figure === 'weight') return { ...none, weight: 1 }
  if (figure === 'week-weight') return { ...none, week: 1 }
  if (figure === 'sum') return { ...none, sites: Object.fromEntries(summed.map((site) => [site, 1])) }
  if (!isByEquation(figure)) {
    const limb = limbOf(figure, (site) => means[site] !== undefined)
    if (limb === 'unread') return null
    return { ...none, sites: limb ? { [limb.girth]: 1, [limb.fold]: -CM_PER_MM } : { [figure]: 1 } }
  }
  if (!gradient) return null
  const slopes = Object.entries(gradient).flatMap(([input, slope]) => {
    const site = asSite(input)
    return site ? [[site, slope] as const] : []
  })
  const byWeight = gradient.weight ?? 0
  if (figure === 'percent') return { sites: Object.fromEntries(slopes), weight: byWeight, bend }
  if (weightKg === null || percent === null) return null
  // fat = W p / 100, lean = W - fat, lean less fat = W - 2 fat.
  const [own, times] = { fat: [0, 1], lean: [1, -1], 'lean-less-fat': [1, -2] }[figure] as [number, number]
  const fatByWeight = percent / 100 + (weightKg / 100) * byWeight
  return {
    sites: Object.fromEntries(slopes.map(([site, slope]) => [site, (times * weightKg * slope) / 100])),
    weight: own + times * fatByWeight,
    bend: (times * (weightKg / 100)) ** 2 * bend,
  }
}

/** Folds among sites. */
export function foldsAmong(sites: readonly SiteId[]): SiteId[] {
  return sites.filter((site) => isFold(site))
}
