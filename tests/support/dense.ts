import { determinant, inverse, Matrix } from 'ml-matrix'
import type { CourseModel } from '../../core/following/course-models'
import { SLOW, type NoiseType } from '../../core/following/noise'
import type { OddsSeries } from '../../core/following/odds'

export const WEEKS = [0, 1, 2.5, 3, 7, 8.3]
export const VALUES = [100, 103, 97, 99, 92, 95]
/** Visits as wide as each other: they are told apart by steps only (`figureRuns`). */
export const VARIANCES = [25, 25, 25, 25, 25, 25]
/** A small history, written out for checks against whole matrices. */
export const SERIES: OddsSeries = { weeks: WEEKS, values: VALUES, variances: VARIANCES }
export const HANDS = ['runa', 'runa', 'ivo', 'ivo', 'runa', 'ivo']

const UNIT = 25
const over = (of: (a: number, b: number, i: number, j: number) => number) =>
  new Matrix(WEEKS.map((a, i) => WEEKS.map((b, j) => of(a, b, i, j))))

/** A course, or none. */
export type Course = Pick<CourseModel, 'kind' | 'sd'> | null

/** Covariance of a course at the visits, unit squared (following.md: K). */
export function courseCovariance(course: Course): Matrix {
  return over((s, t) => {
    if (!course) return 0
    const [a, b] = [Math.min(s, t), Math.max(s, t)]
    const shape = course.kind === 'line' ? s * t : course.kind === 'walk' ? a : (a * a * (3 * b - a)) / 6
    return UNIT * course.sd ** 2 * shape
  })
}

/** Covariance of the noise and of other hands' offsets at the visits, unit squared (following.md: C). */
export function noiseCovariance(noise: NoiseType, hands: readonly string[] = [], offset = 0): Matrix {
  return over((s, t, i, j) => {
    const lasting = (1 - noise.white) * noise.rho ** Math.abs(s - t)
    const slow = noise.slow
      ? SLOW.driftSd ** 2 * s * t + SLOW.seasonSd ** 2 * Math.cos((2 * Math.PI * (s - t)) / SLOW.seasonWeeks)
      : 0
    const other = hands[i] !== hands[0] && hands[i] === hands[j] ? offset : 0
    return UNIT * ((i === j ? noise.white : 0) + (noise.rho > 0 || i === j ? lasting : 0) + slow) + other
  })
}

/** Contrasts to the first visit, as rows. */
const CONTRASTS = new Matrix(WEEKS.slice(1).map((_, i) => WEEKS.map((__, j) => (j === 0 ? -1 : Number(j === i + 1)))))

/** Squares of the contrasts and half their log determinant, in visit variances, up to a visit. */
export function denseContrasts(all: Matrix, until = WEEKS.length - 1): { squares: number; half: number } {
  const rows = CONTRASTS.subMatrix(0, until - 1, 0, WEEKS.length - 1)
  const covariance = rows.mmul(all).mmul(rows.transpose()).div(UNIT)
  const y = rows.mmul(Matrix.columnVector(VALUES)).div(Math.sqrt(UNIT))
  return {
    squares: y.transpose().mmul(inverse(covariance)).mmul(y).get(0, 0),
    half: 0.5 * Math.log(determinant(covariance)),
  }
}

/** The course given all values, level flat: means and variances of level and course at every visit, and of the change. */
export function denseCourse(noise: Matrix, course: Course) {
  const [c, all] = [courseCovariance(course), noise.clone().add(courseCovariance(course))]
  const weights = inverse(all)
  const ones = Matrix.ones(VALUES.length, 1)
  const y = Matrix.columnVector(VALUES)
  const held = ones.transpose().mmul(weights).mmul(ones).get(0, 0)
  const level = ones.transpose().mmul(weights).mmul(y).get(0, 0) / held
  const rest = Matrix.sub(y, Matrix.mul(ones, level))
  const means = c.mmul(weights).mmul(rest).add(level)
  const left = Matrix.sub(ones, c.mmul(weights).mmul(ones))
  const spread = Matrix.sub(c, c.mmul(weights).mmul(c))
  const last = VALUES.length - 1
  // The course alone, 0 at the start: what is not known of the level goes through it.
  const through = c.mmul(weights).mmul(ones).get(last, 0)
  return {
    means: means.getColumn(0),
    variances: spread.clone().add(left.mmul(left.transpose()).div(held)).diagonal(),
    change: c.mmul(weights).mmul(rest).get(last, 0),
    changeVariance: spread.get(last, last) + through ** 2 / held,
  }
}
