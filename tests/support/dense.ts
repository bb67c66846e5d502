import { Matrix } from 'ml-matrix'
import type { CourseModel } from '../../core/following/course-filter'
import type { NoiseModel } from '../../core/following/noise'
import type { OddsSeries } from '../../core/following/odds'

export const WEEKS = [0, 1, 2.5, 3, 7, 8.3]
export const VALUES = [100, 103, 97, 99, 92, 95]
export const VARIANCES = [25, 20, 30, 25, 22, 28]
/** A small history, written out for checks against whole matrices. */
export const SERIES: OddsSeries = { weeks: WEEKS, values: VALUES, variances: VARIANCES }

/** Covariance of a course at the visits, on scale 1. */
export function courseCovariance(course: CourseModel): Matrix {
  const unit = VARIANCES.reduce((a, b) => a + b, 0) / VARIANCES.length
  return new Matrix(
    WEEKS.map((a) =>
      WEEKS.map((b) =>
        course.kind === 'none' ? 0 : course.sd ** 2 * unit * (course.kind === 'line' ? a * b : Math.min(a, b)),
      ),
    ),
  )
}

/** Covariance of the visits written out: noise, course and offsets, on scale 1. */
export function covariance(noise: NoiseModel, course: CourseModel, hands: string[] = [], offsetVariance = 0): Matrix {
  const own = new Matrix(
    WEEKS.map((a, i) =>
      WEEKS.map((b, j) => {
        const root = Math.sqrt((VARIANCES[i] ?? 0) * (VARIANCES[j] ?? 0))
        const lasting = (1 - noise.white) * noise.rho ** Math.abs(a - b)
        const other = hands[i] !== hands[0] && hands[i] === hands[j] ? offsetVariance : 0
        return root * ((i === j ? noise.white : 0) + (i === j ? 1 - noise.white : lasting)) + other
      }),
    ),
  )
  return own.add(courseCovariance(course))
}

/** The history as the filters take it. */
export function filterSeries(hands?: string[], offsetVariance = 0) {
  const variances = Float64Array.from(VARIANCES)
  return {
    weeks: Float64Array.from(WEEKS),
    values: Float64Array.from(VALUES),
    variances,
    unit: variances.reduce((a, b) => a + b, 0) / variances.length,
    offsets: hands
      ? [{ seen: Float64Array.from(hands, (hand) => Number(hand !== hands[0])), variance: offsetVariance }]
      : [],
  }
}
