import type { Observation } from './kalman'

/** Noise of a diary's days about its trend. */
export interface DiaryNoise {
  /** Standard deviation of a day, kg. */
  sd: number
  /** Correlation from one day to the next. */
  correlation: number
}

/** Assumed before a diary tells: 0.7 % of body weight, and half of it still there a day later (common practice). */
const ASSUMED = { share: 0.007, correlation: 0.5 } as const
/** Days the assumption weighs. */
const PRIOR_DAYS = 28
const WEEK = 7
const MOST_CORRELATION = 0.9

/** Half the variance of differences over a number of days, with how many there are; a steady slope drops out. */
function halfVariance(byDay: ReadonlyMap<number, number>, lag: number): { value: number; count: number } {
  const differences: number[] = []
  for (const [day, value] of byDay) {
    const before = byDay.get(day - lag)
    if (before !== undefined) differences.push(value - before)
  }
  const count = differences.length
  if (count < 2) return { value: NaN, count: 0 }
  const mean = differences.reduce((sum, one) => sum + one, 0) / count
  const squares = differences.reduce((sum, one) => sum + (one - mean) ** 2, 0)
  return { value: squares / (count - 1) / 2, count }
}

/**
 * The noise of a diary, learnt from how much farther days a week apart lie from each other than days in a row, and held
 * to what is assumed while the diary is short: E (y(t) - y(t - k))^2 / 2 = sd^2 (1 - correlation^k).
 * @param observations one a day, kg
 */
export function diaryNoise(observations: readonly Observation[]): DiaryNoise {
  const byDay = new Map(observations.map(({ day, value }) => [day, value]))
  const mean = observations.reduce((sum, { value }) => sum + value, 0) / Math.max(1, observations.length)
  const assumed = (ASSUMED.share * mean) ** 2
  const [next, week] = [halfVariance(byDay, 1), halfVariance(byDay, WEEK)]
  // Differences that overlap tell less than their number.
  const told = Math.min(next.count, week.count) / 2
  if (!(told > 0)) return { sd: Math.sqrt(assumed), correlation: ASSUMED.correlation }
  const variance = (PRIOR_DAYS * assumed + told * week.value) / (PRIOR_DAYS + told)
  const single = (PRIOR_DAYS * assumed * (1 - ASSUMED.correlation) + told * next.value) / (PRIOR_DAYS + told)
  return {
    sd: Math.sqrt(variance),
    correlation: Math.min(MOST_CORRELATION, Math.max(0, 1 - single / variance)),
  }
}

/**
 * Standard deviation a single observation is to be given in a trend that takes days for independent: noise that lasts
 * averages out as slowly as independent noise of sd^2 (1 + r) / (1 - r) would, r its correlation from one observation
 * to the next.
 */
export function trendNoiseSd({ sd, correlation }: DiaryNoise, observations: readonly Observation[]): number {
  const [first, last] = [observations[0], observations.at(-1)]
  const gaps = observations.length - 1
  const gap = first && last && gaps > 0 ? Math.max(1, (last.day - first.day) / gaps) : 1
  const between = correlation ** gap
  return sd * Math.sqrt((1 + between) / (1 - between))
}
