import { studentQuantile } from './student'

/** A point of a line: time in days, value, and its weight (1 / variance). */
export interface WeightedPoint {
  day: number
  value: number
  weight: number
}

/** A weighted straight line through three or more check-ins. */
export interface Line {
  /** Unit per day. */
  slope: number
  /** Half-width of the slope's 95 % interval (Student's t on n - 2), unit per day. */
  slopeError: number
  /** Value at a day, and the half-width of the line's own 95 % interval there. */
  at: (day: number) => { value: number; error: number }
}

/**
 * Weighted least-squares line with its 95 % interval; the residuals tell the scale of the error.
 * @returns null with fewer than three points, or all on one day
 */
export function weightedLine(points: readonly WeightedPoint[]): Line | null {
  if (points.length < 3) return null
  let [total, sumDay, sumValue] = [0, 0, 0]
  for (const { day, value, weight } of points) {
    total += weight
    sumDay += weight * day
    sumValue += weight * value
  }
  const [meanDay, meanValue] = [sumDay / total, sumValue / total]
  let [spread, joint] = [0, 0]
  for (const { day, value, weight } of points) {
    spread += weight * (day - meanDay) ** 2
    joint += weight * (day - meanDay) * (value - meanValue)
  }
  if (!(spread > 0)) return null
  const slope = joint / spread
  const residual = points.reduce(
    (sum, { day, value, weight }) => sum + weight * (value - meanValue - slope * (day - meanDay)) ** 2,
    0,
  )
  const freedom = points.length - 2
  const scale = residual / freedom
  const t = studentQuantile(0.975, freedom)
  return {
    slope,
    slopeError: t * Math.sqrt(scale / spread),
    at: (day) => ({
      value: meanValue + slope * (day - meanDay),
      error: t * Math.sqrt(scale * (1 / total + (day - meanDay) ** 2 / spread)),
    }),
  }
}
