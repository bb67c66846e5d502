import type { Day } from '../calendar'
import { reachedOf, weightOf, type SpanEnd } from '../composition/end-figures'
import { handBias } from '../error/hands'
import { markOf, readingVariance, siteVisitVariance, weighingVariance, type ErrorModel } from '../error/model'
import { isFold, type SiteId } from '../sites'
import { countedReadings, type Copying } from './copies'
import type { OddsSeries } from './odds'
import { columnsOf, handsOf, type VisitColumns } from './visit-columns'
import { isByEquation, limbOf, weightsOf, type FigureId, type FigureTerms, type Weights } from './weights'

/** A figure's value at a visit; null where it is not there. */
export function figureValue(figure: FigureId, end: SpanEnd, summed: readonly SiteId[]): number | null {
  const { values, indexes } = end.result
  if (figure === 'sum') {
    let sum = 0
    for (const site of summed) sum += values[site] ?? NaN
    return summed.length > 0 && !Number.isNaN(sum) ? sum : null
  }
  if (figure === 'weight') return weightOf(end)
  if (figure === 'week-weight') return end.week?.weightKg ?? null
  if (!isByEquation(figure)) {
    const limb = limbOf(figure, (site) => values[site] !== undefined)
    if (limb === 'unread') return null
    return limb ? indexes.corrected[figure.slice('corrected-'.length) as 'arm'] : (values[figure as SiteId] ?? null)
  }
  const percent = reachedOf(end)?.percent
  if (percent === undefined) return null
  if (figure === 'percent') return percent
  const kg = weightOf(end)
  if (kg === null) return null
  const fat = (kg * percent) / 100
  return { fat, lean: kg - fat, 'lean-less-fat': kg - 2 * fat }[figure]
}

/** What a figure's variance at a visit is made of, unit squared. */
export interface VarianceParts {
  /** Readings: what repeats within the visit average out. */
  reading: number
  /** Marks found anew. */
  mark: number
  /** The day common to all folds. */
  day: number
  /** The weight that day. */
  weight: number
  /** The equation's bend. */
  bend: number
}

/** How variances of a figure are taken. */
interface VarianceSettings {
  model: ErrorModel
  copying?: Copying | undefined
}

/**
 * Gives what a figure's variance at any visit is made of, as the model takes it at the client's mean values.
 * @param columns of the visits it will be asked about, each then with its place among them
 */
export function varianceTeller(
  weights: Weights,
  { means, weightKg }: FigureTerms,
  { model, copying }: VarianceSettings,
  columns: VisitColumns | null = null,
): (end: SpanEnd, differs: boolean, place?: number) => VarianceParts {
  let [mark, day] = [0, 0]
  const rows = (Object.entries(weights.sites) as [SiteId, number][]).map(([site, slope]) => {
    const mean = means[site] ?? 0
    const single = readingVariance(site, mean, markOf(site), model)
    mark += slope * slope * siteVisitVariance(single, Infinity, model)
    if (isFold(site)) day += slope * mean
    return { site, single: slope * slope * single, readings: columns?.readings(copying)(site) }
  })
  const commonDay = (model.dayShare * day) ** 2
  const widened = commonDay * model.conditionsFactor ** 2
  const single = weightKg === null ? 0 : weights.weight ** 2 * weighingVariance(weightKg, 1, model)
  return (end, differs, place = 0) => {
    let reading = 0
    for (const { site, single: variance, readings } of rows)
      reading += variance / (readings?.[place] ?? countedReadings(end, site, copying))
    const weight =
      weights.week && end.week ? weighingVariance(weightKg ?? end.week.weightKg, end.week.count, model) : single
    return { reading, mark, day: differs ? widened : commonDay, weight, bend: weights.bend }
  }
}

function totalOf({ reading, mark, day, weight, bend }: VarianceParts): number {
  return reading + mark + day + weight + bend
}

/** One figure of a client over their visits, with the ends it was taken from. */
export interface FigureSeriesOf {
  series: OddsSeries
  /** Days of the visits. */
  days: Day[]
  ends: SpanEnd[]
}

/** What a figure is followed with. */
export interface FigureSettings {
  /** The folds a sum is of. */
  summed: readonly SiteId[]
  model: ErrorModel
  copying?: Copying | undefined
}

/**
 * A figure over visits that can be compared with the last of them, on its terms, each with the variance the model takes.
 * @param ends on the terms of the last (see `onTermsOf`), oldest first
 * @returns null with fewer than two days of visits that hold it, or when the last does not hold it
 */
export function figureOver(
  figure: FigureId,
  ends: readonly SpanEnd[],
  terms: FigureTerms,
  settings: FigureSettings,
): FigureSeriesOf | null {
  const now = ends.at(-1)
  const weights = weightsOf(figure, terms, settings.summed)
  if (!now || !weights) return null
  const columns = columnsOf(ends)
  const asLast = (Object.keys(weights.sites) as SiteId[]).filter(isFold).map(columns.asLast)
  const byEquation = isByEquation(figure)
  const values = ends.map((end) => figureValue(figure, end, settings.summed))
  const places = [...ends.keys()].filter(
    (i) =>
      values[i] !== null &&
      (!byEquation || terms.percentOf.has(ends[i] as SpanEnd)) &&
      asLast.every((alike) => alike[i]),
  )
  const first = places[0]
  if (first === undefined || places.at(-1) !== ends.length - 1) return null
  const hands = columns.hands(first)
  const visits = byDay(places, columns.dayNumbers, hands)
  if (visits.length < 2) return null
  const start = columns.dayNumbers[first] as number
  const differing = columns.differing(first)
  const partsAt = varianceTeller(weights, terms, settings, columns)
  const last = visits.map((own) => own.at(-1) as number)
  const held = last.map((i) => ends[i] as SpanEnd)
  const own = last.map((i) => hands[i] as string)
  return {
    ends: held,
    days: last.map((i) => columns.days[i] as Day),
    series: {
      weeks: last.map((i) => ((columns.dayNumbers[i] as number) - start) / 7),
      values: visits.map((all) => all.reduce((sum, i) => sum + (values[i] as number), 0) / all.length),
      variances: visits.map((all) => {
        const parts = all.map((i) => partsAt(ends[i] as SpanEnd, differing[i] as boolean, i))
        // One visit with more readings: the marks, the day and the weight stay as they are.
        const reading = parts.reduce((sum, one) => sum + one.reading, 0) / all.length ** 2
        return totalOf({ ...(parts.at(-1) as VarianceParts), reading })
      }),
      hands: own,
      ...offsetsBetween(held, own, weights, terms, settings.model),
    },
  }
}

/** Visits of one day are one: those of the hand that measured last. */
function byDay(places: readonly number[], days: readonly number[], hands: readonly string[]): number[][] {
  const visits: number[][] = []
  for (const place of places) {
    const before = visits.at(-1)
    const latest = before?.at(-1)
    if (!before || latest === undefined || days[latest] !== days[place]) visits.push([place])
    else if (hands[latest] === hands[place]) before.push(place)
    else visits[visits.length - 1] = [place]
  }
  return visits
}

/** What is held of each hand's offset against the first's: what studies found taken off, what is left as a variance. */
function offsetsBetween(
  held: readonly SpanEnd[],
  hands: readonly string[],
  weights: Weights,
  { means }: FigureTerms,
  { handShare }: ErrorModel,
): Pick<OddsSeries, 'offsetVariances' | 'biases'> {
  const first = held[0] as SpanEnd
  const known = held.at(-1)?.hands ?? []
  const offsets = new Map<string, { bias: number; variance: number }>()
  const biases = held.map((end, i) => {
    const key = hands[i] as string
    const told = offsets.get(key)
    if (told) return told.bias
    const offset = { bias: 0, variance: 0 }
    for (const [site, slope] of Object.entries(weights.sites) as [SiteId, number][]) {
      const { log, variance } = handBias(known, ...handsOf(first, end), site, handShare)
      const moved = slope * (means[site] ?? 0)
      offset.bias += moved * log
      offset.variance += moved ** 2 * variance
    }
    offsets.set(key, offset)
    return offset.bias
  })
  return {
    offsetVariances: Object.fromEntries([...offsets].map(([hand, { variance }]) => [hand, variance])),
    ...(biases.some((bias) => bias !== 0) ? { biases } : {}),
  }
}

/** A figure at one visit by itself, with the variance the model takes for it; null where it is not there. */
export function figureAt(figure: FigureId, end: SpanEnd, terms: FigureTerms, settings: FigureSettings) {
  const value = figureValue(figure, end, settings.summed)
  const weights = weightsOf(figure, terms, settings.summed)
  if (value === null || !weights) return null
  return { value, variance: totalOf(varianceTeller(weights, terms, settings)(end, false)) }
}
