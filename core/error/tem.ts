/**
 * Technical error of measurement of n sites read twice: TEM = sqrt(sum d^2 / 2n), in the unit of the readings.
 * @param pairs each site's two readings
 * @returns null without any pair
 * @example technicalError([[10, 11], [12, 12]]) // 0.5
 */
export function technicalError(pairs: readonly (readonly [number, number])[]): number | null {
  if (pairs.length === 0) return null
  const squares = pairs.reduce((sum, [a, b]) => sum + (a - b) ** 2, 0)
  return Math.sqrt(squares / (2 * pairs.length))
}

/** Squares within sites and what they stand on: the raw material of every technical error. */
export interface Repeats {
  /** Sum over sites of squared distances from the site's mean. For two readings that is d^2 / 2. */
  squares: number
  /** Sum over sites of readings - 1. */
  freedom: number
  /** Sum and count of all readings, for the mean. */
  total: number
  readings: number
}

export const NO_REPEATS: Repeats = { squares: 0, freedom: 0, total: 0, readings: 0 }

/** Adds one site's readings. Sites read once add to the mean only. */
export function addRepeats(repeats: Repeats, values: readonly number[]): Repeats {
  const count = values.length
  if (count === 0) return repeats
  let total = 0
  for (const value of values) total += value
  const mean = total / count
  let squares = 0
  for (const value of values) squares += (value - mean) ** 2
  return {
    squares: repeats.squares + squares,
    freedom: repeats.freedom + count - 1,
    total: repeats.total + total,
    readings: repeats.readings + count,
  }
}

/**
 * Pooled within-site standard deviation: the technical error for any number of readings a site. With two each it equals
 * technicalError.
 * @returns null without repeats
 */
export function pooledTem({ squares, freedom }: Repeats): number | null {
  return freedom > 0 ? Math.sqrt(squares / freedom) : null
}

/** Technical error in percent of the mean: 100 TEM / mean. */
export function percentTem(tem: number, mean: number): number {
  return (100 * tem) / mean
}

/** What is assumed of an assessor before anything is known, as a share of the mean (common practice). */
export const PRIOR_SHARE = { fold: 0.05, girth: 0.01 } as const

/** How many repeats the prior weighs. */
export const PRIOR_WEIGHT = 10

/**
 * Technical error shrunk to the prior while little is known: TEM^2 = (10 t0^2 + squares) / (10 + freedom), where
 * t0 = 5 % of the mean for folds and 1 % for girths. For readings in pairs, squares is sum d^2 / 2.
 * @param mean what the share is taken of, in the unit of the readings
 */
export function shrunkTem({ squares, freedom }: Repeats, mean: number, kind: keyof typeof PRIOR_SHARE): number {
  const prior = PRIOR_SHARE[kind] * mean
  return Math.sqrt((PRIOR_WEIGHT * prior ** 2 + squares) / (PRIOR_WEIGHT + freedom))
}

/** Usual marks for a trained assessor, percent (ISAK accreditation practice, recalled). */
export const TEM_MARKS = {
  fold: { trained: 5, learning: 7.5, betweenAssessors: 10 },
  girth: { trained: 1, learning: 1.5, betweenAssessors: 2 },
} as const
