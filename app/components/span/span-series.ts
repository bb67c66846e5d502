import { comparability, endFigures, onTermsOf, siteVariances, type Measured, type SpanEnd } from '#core/composition'
import { sameSet } from '#core/following'
import { Z_95, type ErrorLookup } from '#core/error'
import { isFold, SITES } from '#core/sites'
import { cmToLength, kgToMass, type Units } from '#core/units'
import type { FollowedEnd } from '#shared/following'

/** A point of a chart: milliseconds, value, half of its 95 % interval, and the band of the level where it is known. */
export interface ChartPoint {
  at: number
  value: number
  error: number
  low: number | null
  high: number | null
  /** True where it can be held against the later jaw. */
  comparable: boolean
}

/** Points of lean, fat and sum, in the person's units; fat and lean carry the level's band. */
export interface ChartSeries {
  lean: ChartPoint[]
  fat: ChartPoint[]
  sum: ChartPoint[]
  /** Girths in the person's unit, where the set holds no folds. */
  girths: { name: string; points: ChartPoint[] }[]
}

/** Girths drawn for tape sets, the most telling first, three at most. */
const GIRTHS_DRAWN = ['waist', 'abdomen', 'hip', 'arm-relaxed', 'thigh-girth'] as const

function withWeek(end: FollowedEnd, byWeek: boolean): SpanEnd {
  if (byWeek) return end
  const { week: _, ...visit } = end
  return visit
}

function seeOf({ result }: SpanEnd): number | null {
  return result.estimate && 'percent' in result.estimate ? result.estimate.seePercent : null
}

function girthSeries(
  ends: readonly FollowedEnd[],
  now: FollowedEnd,
  { errors, units }: { errors: ErrorLookup; units: Units },
): ChartSeries['girths'] {
  const sites = GIRTHS_DRAWN.filter((site) => now.result.values[site] !== undefined).slice(0, 3)
  const length = (cm: number) => cmToLength(cm, units.length)
  return sites.map((site) => ({
    name: `${SITES[site].name}, ${units.length}`,
    points: ends.flatMap((end): ChartPoint[] => {
      const cm = end.result.values[site]
      if (cm === undefined) return []
      const error = length(Z_95 * Math.sqrt(siteVariances(end, errors)[site] ?? 0))
      const at = Date.parse(end.facts.startedAt)
      return [{ at, value: length(cm), error, low: null, high: null, comparable: true }]
    }),
  }))
}

/** What the chart draws. `now` is the later jaw: its equation and folds say what can be compared. */
export function chartSeries(
  ends: readonly FollowedEnd[],
  now: FollowedEnd,
  settings: { errors: ErrorLookup; units: Units; byWeek: boolean },
): ChartSeries {
  const { errors, units, byWeek } = settings
  const tapeOnly = !now.facts.protocol.sites.some((site) => isFold(site))
  const series: ChartSeries = { lean: [], fat: [], sum: [], girths: tapeOnly ? girthSeries(ends, now, settings) : [] }
  const mass = (kg: number) => kgToMass(kg, units.mass)
  for (const followed of ends) {
    const end = onTermsOf(withWeek(followed, byWeek), now)
    const said = endFigures(end, errors)
    const at = Date.parse(end.facts.startedAt)
    const comparable = followed === now || comparability(end, now).percent
    const see = seeOf(end)
    const half = see !== null && said.weight ? (said.weight.value * see) / 100 : null
    const point = ({ value, variance }: Measured, scale: (n: number) => number, level: number | null): ChartPoint => ({
      at,
      value: scale(value),
      error: scale(Z_95 * Math.sqrt(variance)),
      low: level === null ? null : scale(value - level),
      high: level === null ? null : scale(value + level),
      comparable,
    })
    if (said.fat) series.fat.push(point(said.fat, mass, half))
    if (said.lean) series.lean.push(point(said.lean, mass, half))
    if (said.sum) series.sum.push({ ...point(said.sum, (mm) => mm, null), comparable: sameSet(end, now) })
  }
  return series
}
