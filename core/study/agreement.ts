import { limitFactors } from './intervals'
import { studentAt } from './quantiles'

/** A number with its 95 % interval. */
export interface WithInterval {
  value: number
  low: number
  high: number
}

/** Agreement of two ways of measuring (Bland & Altman 1986). On the log scale everything is a ratio of second to first. */
export interface Agreement {
  scale: 'plain' | 'log'
  pairs: number
  /** Mean difference, second less first; on the log scale the ratio. */
  bias: WithInterval
  /** Where 95 % of differences lie, each with its own interval. */
  lower: WithInterval
  upper: WithInterval
  /** Standard deviation of the differences; of the logarithms on the log scale. */
  sd: number
  /** The spread of the differences grows with the size measured: then the log scale is the one to read. */
  grows: boolean
}

/** Fewest pairs limits of agreement are given for. */
export const FEWEST_FOR_LIMITS = 3

function meanAndSd(values: readonly number[]): { mean: number; sd: number } {
  const mean = values.reduce((sum, one) => sum + one, 0) / values.length
  return { mean, sd: Math.sqrt(values.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (values.length - 1)) }
}

/** Whether absolute distances from the mean difference grow with the size measured (a slope with its t test; Bland & Altman 1999). */
function spreadGrows(pairs: readonly (readonly [number, number])[]): boolean {
  if (pairs.length < 5) return false
  const { mean } = meanAndSd(pairs.map(([a, b]) => b - a))
  const sizes = pairs.map(([a, b]) => (a + b) / 2)
  const off = pairs.map(([a, b]) => Math.abs(b - a - mean))
  const [x, y] = [meanAndSd(sizes), meanAndSd(off)]
  const sxx = x.sd ** 2 * (pairs.length - 1)
  if (sxx === 0 || y.sd === 0) return false
  const slope = sizes.reduce((sum, one, i) => sum + (one - x.mean) * ((off[i] as number) - y.mean), 0) / sxx
  const rest = off.reduce((sum, one, i) => sum + (one - y.mean - slope * ((sizes[i] as number) - x.mean)) ** 2, 0)
  const t = slope / Math.sqrt(rest / (pairs.length - 2) / sxx)
  return t > studentAt(0.95, pairs.length - 2)
}

/**
 * Bias and limits of agreement of pairs measured in two ways.
 * Limits are bias -+ 1.96 sd; their intervals are exact, by the noncentral t distribution (`limitFactors`).
 * @param pairs first and second way; for the log scale all above zero
 * @param scale without one the log scale where the spread grows with the size
 * @returns null with fewer than three pairs, or where a log scale is asked of values that have no logarithm
 */
export function agreementOf(pairs: readonly (readonly [number, number])[], scale?: 'plain' | 'log'): Agreement | null {
  if (pairs.length < FEWEST_FOR_LIMITS) return null
  const positive = pairs.every(([a, b]) => a > 0 && b > 0)
  const grows = positive && spreadGrows(pairs)
  const taken = scale ?? (grows ? 'log' : 'plain')
  if (taken === 'log' && !positive) return null
  const { mean, sd } = meanAndSd(pairs.map(([a, b]) => (taken === 'log' ? Math.log(b / a) : b - a)))
  const count = pairs.length
  const t = studentAt(0.975, count - 1)
  const { near, far } = limitFactors(count)
  const back = taken === 'log' ? Math.exp : (one: number) => one
  const around = (value: number, error: number): WithInterval => ({
    value: back(value),
    low: back(value - t * error),
    high: back(value + t * error),
  })
  return {
    scale: taken,
    pairs: count,
    bias: around(mean, sd / Math.sqrt(count)),
    lower: { value: back(mean - 1.96 * sd), low: back(mean - far * sd), high: back(mean - near * sd) },
    upper: { value: back(mean + 1.96 * sd), low: back(mean + near * sd), high: back(mean + far * sd) },
    sd,
    grows,
  }
}

/** Bias by ratio, with what an error model takes of it. */
export interface RatioBias extends WithInterval {
  /** Mean and standard error of the logarithm of the ratio. */
  log: number
  se: number
  freedom: number
}

/**
 * Bias of a second way against a first as a ratio, with its t interval on the logarithms.
 * @returns null with fewer than two pairs or a value at or below zero
 */
export function ratioBias(pairs: readonly (readonly [number, number])[]): RatioBias | null {
  if (pairs.length < 2 || pairs.some(([a, b]) => !(a > 0 && b > 0))) return null
  const { mean, sd } = meanAndSd(pairs.map(([a, b]) => Math.log(b / a)))
  const freedom = pairs.length - 1
  const se = sd / Math.sqrt(pairs.length)
  const half = studentAt(0.975, freedom) * se
  return { value: Math.exp(mean), low: Math.exp(mean - half), high: Math.exp(mean + half), log: mean, se, freedom }
}
