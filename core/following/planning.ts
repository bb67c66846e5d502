import { addDays, type Day } from '../calendar'
import type { Change } from './change'
import type { FigureSeriesOf } from './figures'
import type { Noise } from './noise'
import { oddsOf, type OddsSeries } from './odds'
import { REAL_ODDS } from './verdict'

/** Check-ins ahead that are looked at: beyond them it is not said when. */
const FARTHEST = 26

/** Weeks between check-ins, the middle one of those kept so far. */
export function cadenceOf(weeks: readonly number[]): number {
  const gaps = weeks
    .slice(1)
    .map((week, i) => week - (weeks[i] ?? 0))
    .sort((a, b) => a - b)
  return Math.max(1 / 7, gaps[Math.floor(gaps.length / 2)] ?? 1)
}

/** How many check-ins on the odds pass the line of real, were every one to lie where the pace puts it; null: not in sight. */
function visitsAhead(series: OddsSeries, noise: Noise, perWeek: number, cadence: number, searched: number) {
  const { weeks, values, variances, hands } = series
  const last = weeks.at(-1) ?? 0
  const ahead = Array.from({ length: FARTHEST }, (_, i) => (i + 1) * cadence)
  const mean = variances.reduce((sum, one) => sum + one, 0) / Math.max(1, variances.length)
  const hand = hands?.at(-1)
  const from = (values[0] ?? 0) + perWeek * last
  const found = oddsOf(
    {
      ...series,
      weeks: [...weeks, ...ahead.map((week) => last + week)],
      values: [...values, ...ahead.map((week) => from + perWeek * week)],
      variances: [...variances, ...ahead.map(() => mean)],
      ...(hands && hand !== undefined ? { hands: [...hands, ...ahead.map(() => hand)] } : {}),
    },
    noise,
  )
  const place = found?.running.slice(weeks.length).findIndex((one) => one / searched >= REAL_ODDS) ?? -1
  return place < 0 ? null : place + 1
}

/**
 * The day of the check-in by which a change would be told at the pace kept so far and with check-ins as often.
 * @returns null where it is told already, or not in sight within 26 check-ins
 */
export function settledOn(over: Pick<FigureSeriesOf, 'series' | 'days'>, change: Change, noise: Noise): Day | null {
  const { weeks } = over.series
  const last = over.days.at(-1)
  const length = weeks.at(-1) ?? 0
  if (!last || !(length > 0) || change.verdict === 'real') return null
  const cadence = cadenceOf(weeks)
  const ahead = visitsAhead(over.series, noise, change.change / length, cadence, change.searched)
  return ahead === null ? null : addDays(last, Math.round(ahead * cadence * 7))
}

/** A way of following: how often, and how well. */
export interface Cadence {
  weeksApart: number
  /** Variance of the figure at a visit, unit squared. */
  variance: number
}

/**
 * How many check-ins, the first counted, until a steady change is told, were each to lie where it should.
 * @param perWeek change a week, in the figure's unit
 * @returns null beyond 27 check-ins
 * @example visitsUntilTold(0.5, { weeksApart: 4, variance: 0.25 }, ASSUMED_NOISE) // 3
 */
export function visitsUntilTold(perWeek: number, { weeksApart, variance }: Cadence, noise: Noise): number | null {
  const ahead = visitsAhead({ weeks: [0], values: [0], variances: [variance] }, noise, perWeek, weeksApart, 1)
  return ahead === null ? null : ahead + 1
}
