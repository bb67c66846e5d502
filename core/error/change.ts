/** Between two visits of one assessor the error is larger than within one: landmarks found anew, water, posture. */
export const BETWEEN_VISIT_FACTOR = 1.5

/** Another factor where the assessor has changed, until a study says better. */
export const INTER_ASSESSOR_FACTOR = 1.5

/** Day-to-day noise of a single weigh-in as a share of body weight (common practice: 0.5 to 1 %). */
export const WEIGHT_NOISE_SHARE = 0.007

/**
 * Variance of one site's value at one visit: between-visit^2 + within^2 / readings, in the unit squared.
 * @param tem technical error of one reading within a visit
 * @param readings how many readings the value stands on, at least 1
 * @param factor between-visit error as a multiple of tem
 */
export function visitVariance(tem: number, readings: number, factor = BETWEEN_VISIT_FACTOR): number {
  return (factor * tem) ** 2 + tem ** 2 / Math.max(1, readings)
}

/** Normal quantile of a two-sided 95 %. */
export const Z_95 = 1.96

/** Smallest real change at 95 % between two values with these variances: 1.96 sqrt(v1 + v2). */
export function smallestRealChange(then: number, now: number): number {
  return Z_95 * Math.sqrt(then + now)
}

/** Three verdicts and no more. */
export type Verdict = 'real' | 'likely' | 'within error'

/**
 * Is this change real? Beyond 95 %: real; beyond 68 %: likely; else within error.
 * @param variance of the change: both visits' variances added
 */
export function verdictOf(change: number, variance: number): Verdict {
  const error = Math.sqrt(variance)
  const size = Math.abs(change)
  if (size > Z_95 * error) return 'real'
  return size > error ? 'likely' : 'within error'
}

/** A change with its error and what it is worth. */
export interface Change {
  then: number
  now: number
  change: number
  /** Half-width of the 95 % interval of the change: also the smallest real change. */
  error: number
  verdict: Verdict
}

/** Puts a change and the variances of its two ends together. */
export function changeOf(then: number, now: number, variance: number): Change {
  const change = now - then
  return { then, now, change, error: Z_95 * Math.sqrt(variance), verdict: verdictOf(change, variance) }
}
