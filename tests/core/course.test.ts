import { inverse, Matrix } from 'ml-matrix'
import { describe, expect, it } from 'vitest'
import { smoothedCourse } from '../../core/following/course'
import { COURSES, noiseTerms, type CourseModel } from '../../core/following/course-filter'
import { ASSUMED_NOISE, NOISE_GRID, type NoiseModel } from '../../core/following/noise'
import { oddsOf } from '../../core/following/odds'
import { smoothCourse } from '../../core/following/smoother'
import { seededRandom } from '../../core/simulate'
import { courseCovariance, covariance, filterSeries, SERIES, VALUES } from '../support/dense'

/** What lay under the readings by whole matrices: a flat level and a course, given all values (universal kriging). */
function dense(noise: NoiseModel, course: CourseModel, hands: string[] = [], offsetVariance = 0) {
  const weights = inverse(covariance(noise, course, hands, offsetVariance))
  const ones = Matrix.ones(VALUES.length, 1)
  const y = Matrix.columnVector(VALUES)
  const held = ones.transpose().mmul(weights).mmul(ones).get(0, 0)
  const level = ones.transpose().mmul(weights).mmul(y).get(0, 0) / held
  const c = courseCovariance(course)
  const means = c
    .mmul(weights)
    .mmul(Matrix.sub(y, Matrix.mul(ones, level)))
    .add(level)
  const left = Matrix.sub(ones, c.mmul(weights).mmul(ones))
  const spread = Matrix.sub(c, c.mmul(weights).mmul(c)).add(left.mmul(left.transpose()).div(held))
  return { means: means.getColumn(0), variances: spread.diagonal() }
}

// Against general linear algebra (ml-matrix): the whole covariance written out and inverted.
describe('the smoothed course', () => {
  const courses: CourseModel[] = [{ kind: 'none' }, ...COURSES]
  it.each(NOISE_GRID.flatMap((noise) => courses.map((course) => [noise, course] as const)))(
    'is what lay under the readings, under %o and %o',
    (noise, course) => {
      const series = filterSeries()
      const { means, variances } = smoothCourse(series, noiseTerms(series, noise), course)
      const whole = dense(noise, course)
      whole.means.forEach((mean, i) => expect(means[i]).toBeCloseTo(mean, 8))
      whole.variances.forEach((variance, i) => expect(variances[i]).toBeCloseTo(variance, 8))
    },
  )

  it('takes the offset of other hands off', () => {
    const hands = ['runa', 'runa', 'ivo', 'ivo', 'runa', 'ivo']
    const series = filterSeries(hands, 40)
    for (const noise of NOISE_GRID)
      for (const course of courses) {
        const { means, variances } = smoothCourse(series, noiseTerms(series, noise), course)
        const whole = dense(noise, course, hands, 40)
        whole.means.forEach((mean, i) => expect(means[i]).toBeCloseTo(mean, 8))
        whole.variances.forEach((variance, i) => expect(variances[i]).toBeCloseTo(variance, 8))
      }
  })

  it('ends where the change says it ends, from where it began', () => {
    const course = smoothedCourse(SERIES, ASSUMED_NOISE)
    const odds = oddsOf(SERIES, ASSUMED_NOISE)
    expect(course).toHaveLength(VALUES.length)
    expect((course?.at(-1)?.value ?? 0) - (course?.[0]?.value ?? 0)).toBeCloseTo(odds?.change ?? NaN, 1)
    for (const { value, low, high } of course ?? []) {
      expect(low).toBeLessThan(value)
      expect(high).toBeGreaterThan(value)
    }
    expect(smoothedCourse({ weeks: [0], values: [1], variances: [1] }, ASSUMED_NOISE)).toBeNull()
  })

  it('holds what lay under the readings in 95 % of visits, drawn from what is assumed', () => {
    const { normal } = seededRandom(37)
    const [people, visits] = [300, 12]
    let inside = 0
    for (let person = 0; person < people; person += 1) {
      const slope = 0.5 * normal()
      const scale = 8 / Array.from({ length: 8 }, () => normal() ** 2).reduce((a, b) => a + b, 0)
      const truth = Array.from({ length: visits }, (_, week) => 100 + slope * 5 * Math.sqrt(scale) * week)
      const values = truth.map((value) => value + 5 * Math.sqrt(scale) * normal())
      const series = { weeks: truth.map((_, week) => week), values, variances: truth.map(() => 25) }
      smoothedCourse(series, ASSUMED_NOISE)?.forEach(({ low, high }, i) => {
        const at = truth[i] as number
        inside += Number(low <= at && at <= high)
      })
    }
    // White noise only, where the mixture allows for noise that lasts: it may be too wide, never too narrow.
    expect(inside / (people * visits)).toBeGreaterThan(0.94)
  })
})
