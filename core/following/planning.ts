import { addDays, type Day } from '../calendar'
import { chosenShare } from './budget'
import type { Change } from './change'
import { smoothedCourse } from './course'
import type { FigureSeriesOf } from './figures'
import { scaleOf, type Noise } from './noise'
import { firstLookOver, type OddsSeries } from './odds'
import { realLine, type LineKind } from './verdict'

/** Check-ins ahead that are looked at: beyond them it is not said when. */
const FARTHEST = 26
/** The pace now is that of the smoothed course over so many weeks, or over what there is. */
const PACE_WEEKS = 8

/** Weeks between check-ins, the middle one of those kept so far. */
export function cadenceOf(weeks: readonly number[]): number {
  const gaps = weeks
    .slice(1)
    .map((week, i) => week - (weeks[i] ?? 0))
    .sort((a, b) => a - b)
  return Math.max(1 / 7, gaps[Math.floor(gaps.length / 2)] ?? 1)
}

/** Where a figure is now, without the noise, and how it goes on. */
interface Ahead {
  from: number
  perWeek: number
  /** Weeks between check-ins. */
  cadence: number
  /** Odds that are asked. */
  asked: number
}

/** Signs of the errors that check-ins to come are given: none that add up to a slope (Thue and Morse). */
const SIGNS = [1, -1, -1, 1, -1, 1, 1, -1]

/**
 * How many check-ins on the odds reach what is asked, were every one to lie about where the pace puts it, as far off as a
 * check-in usually is; null: not in sight.
 */
function visitsAhead(series: OddsSeries, noise: Noise, { from, perWeek, cadence, asked }: Ahead): number | null {
  const { weeks, values, variances, hands, biases } = series
  const last = weeks.at(-1) ?? 0
  const ahead = Array.from({ length: FARTHEST }, (_, i) => (i + 1) * cadence)
  const mean = variances.reduce((sum, one) => sum + one, 0) / Math.max(1, variances.length)
  const hand = hands?.at(-1)
  const bias = biases?.at(-1) ?? 0
  const sd = Math.sqrt(scaleOf(noise) * mean)
  const off = (i: number) => (SIGNS[i % SIGNS.length] as number) * sd
  const look = firstLookOver(
    {
      ...series,
      weeks: [...weeks, ...ahead.map((week) => last + week)],
      values: [...values, ...ahead.map((week, i) => from + bias + perWeek * week + off(i))],
      variances: [...variances, ...ahead.map(() => mean)],
      ...(hands && hand !== undefined ? { hands: [...hands, ...ahead.map(() => hand)] } : {}),
      ...(biases ? { biases: [...biases, ...ahead.map(() => bias)] } : {}),
    },
    noise,
    { from: weeks.length, asked },
  )
  return look === null ? null : look - weeks.length + 1
}

/** Where a figure is now by its smoothed course, and how it goes on. Unit of the figure, a week. */
export interface PaceNow {
  value: number
  /** Half-width of the 95 % interval of the value. */
  error: number
  perWeek: number
}

/** The smoothed course now and its pace of late; null with fewer than two visits. */
export function paceNow(series: OddsSeries, noise: Noise): PaceNow | null {
  const { weeks } = series
  const now = weeks.length - 1
  const end = weeks[now] as number
  // The visit so many weeks ago, or the first.
  const then = Math.max(
    0,
    weeks.findLastIndex((week) => week <= end - PACE_WEEKS),
  )
  const passed = end - (weeks[then] as number)
  if (!(passed > 0)) return null
  const [before, at] = smoothedCourse(series, noise, [then, now]) ?? []
  if (!before || !at) return null
  return { value: at.value, error: (at.high - at.low) / 2, perWeek: (at.value - before.value) / passed }
}

/**
 * The day of the check-in by which a change would be real at the pace of now, from where the smoothed course stands, and
 * with check-ins as often.
 * @returns null where it is real already, or not in sight within 26 check-ins
 */
export function settledOn(over: Pick<FigureSeriesOf, 'series' | 'days'>, change: Change, noise: Noise): Day | null {
  const { weeks } = over.series
  const last = over.days.at(-1)
  if (!last || change.verdict === 'real' || change.verdict === 'steady') return null
  const pace = paceNow(over.series, noise)
  if (!pace) return null
  const cadence = cadenceOf(weeks)
  const { value: from, perWeek } = pace
  const ahead = visitsAhead(over.series, noise, { from, perWeek, cadence, asked: change.needed })
  return ahead === null ? null : addDays(last, Math.round(ahead * cadence * 7))
}

/** A way of following: how often, and how well. */
export interface Cadence {
  weeksApart: number
  /** Variance of the figure at a visit, unit squared. */
  variance: number
  line?: LineKind
}

/**
 * How many check-ins, the first counted, until a steady change is real, were each to lie about where it should.
 * @param perWeek change a week, in the figure's unit
 * @returns null beyond 27 check-ins
 */
export function visitsUntilTold(
  perWeek: number,
  { weeksApart, variance, line = 'sum' }: Cadence,
  noise: Noise,
): number | null {
  const asked = realLine(line, noise.learntFrom.followed) / chosenShare(1)
  const ahead = visitsAhead({ weeks: [0], values: [0], variances: [variance] }, noise, {
    from: 0,
    perWeek,
    cadence: weeksApart,
    asked,
  })
  return ahead === null ? null : ahead + 1
}
