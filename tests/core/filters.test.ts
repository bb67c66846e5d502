import { describe, expect, it } from 'vitest'
import { COURSES, runOf } from '../../core/following/course-models'
import { exp, log } from '../../core/following/fast'
import { NOISE_TYPES } from '../../core/following/noise'
import { figureRuns } from '../../core/following/odds'
import { coefficientsOf } from '../../core/following/regressors'
import { smoothCourse } from '../../core/following/smoother'
import {
  denseContrasts,
  denseCourse,
  courseCovariance,
  HANDS,
  noiseCovariance,
  SERIES,
  WEEKS,
  type Course,
} from '../support/dense'

const ways: { name: string; course: Course }[] = [
  { name: 'no change', course: null },
  ...COURSES.map((course) => ({ name: `a ${course.kind} of ${course.sd}`, course })),
]
const wayOf = (course: Course) =>
  course ? { run: runOf(course), line: course.kind === 'line' ? course.sd ** 2 : 0 } : { run: 0, line: 0 }
const OFFSET = 40
const UNIT = 25

// Against general linear algebra (ml-matrix): the whole covariance of following.md written out and inverted.
describe.each(NOISE_TYPES.map((noise, type) => [type, noise] as const))('under noise %i, %o', (type, noise) => {
  it.each(ways)('contrasts have the squares and the determinant of $name, after every visit', ({ course }) => {
    const { figure } = figureRuns(SERIES)
    const way = wayOf(course)
    const into = { squares: new Float64Array(NOISE_TYPES.length), halves: new Float64Array(NOISE_TYPES.length) }
    const all = noiseCovariance(noise).add(courseCovariance(course))
    for (let visit = 1; visit < WEEKS.length; visit += 1) {
      figure.fill(visit, [way], into)
      const { squares, half } = denseContrasts(all, visit)
      expect(into.squares[type]).toBeCloseTo(squares, 8)
      expect(into.halves[type]).toBeCloseTo(half, 8)
    }
  })

  it.each(ways)('change and smoothed course of $name are the regression on all values', ({ course }) => {
    const { figure, unit } = figureRuns(SERIES)
    const way = wayOf(course)
    const whole = denseCourse(noiseCovariance(noise), course)
    const { change, variance } = figure.change(type, way)
    expect(unit * change).toBeCloseTo(whole.change, 8)
    expect(unit ** 2 * variance).toBeCloseTo(whole.changeVariance, 8)
    const { means, variances } = smoothCourse(figure, type, way)
    whole.means.forEach((mean, i) => expect(100 + unit * (means[i] as number)).toBeCloseTo(mean, 8))
    whole.variances.forEach((one, i) => expect(unit ** 2 * (variances[i] as number)).toBeCloseTo(one, 8))
  })

  it('other hands have an offset of their own, integrated out', () => {
    const { figure, unit } = figureRuns({ ...SERIES, hands: HANDS, offsetVariances: { ivo: OFFSET } })
    const into = { squares: new Float64Array(NOISE_TYPES.length), halves: new Float64Array(NOISE_TYPES.length) }
    for (const { course } of ways) {
      const way = wayOf(course)
      const held = noiseCovariance(noise, HANDS, OFFSET)
      figure.fill(WEEKS.length - 1, [way], into)
      const { squares, half } = denseContrasts(held.clone().add(courseCovariance(course)))
      expect(into.squares[type]).toBeCloseTo(squares, 8)
      expect(into.halves[type]).toBeCloseTo(half, 8)
      const whole = denseCourse(held, course)
      const { change, variance } = figure.change(type, way)
      expect(unit * change).toBeCloseTo(whole.change, 7)
      expect(unit ** 2 * variance).toBeCloseTo(whole.changeVariance, 7)
      const { means, variances } = smoothCourse(figure, type, way)
      whole.means.forEach((mean, i) => expect(100 + unit * (means[i] as number)).toBeCloseTo(mean, 7))
      whole.variances.forEach((one, i) => expect(unit ** 2 * (variances[i] as number)).toBeCloseTo(one, 7))
    }
  })
})

describe('visits held wider than others', () => {
  it('count for less, by steps: what differs by a few percent counts alike', () => {
    const sizesOf = (variances: number[]) => figureRuns({ ...SERIES, variances }).figure.runs.timing.sizes
    expect(new Set(sizesOf([25, 26, 25, 24, 25, 25])).size).toBe(1)
    const wide = sizesOf([25, 25, 25, 25, 25, 100])
    expect((wide[5] as number) / (wide[0] as number)).toBeCloseTo(2, 0)
    expect((UNIT * 9) / 6).toBeGreaterThan(UNIT)
  })
})

describe('regressors whose coefficients are integrated out', () => {
  it('have the mean of ridge regression', () => {
    // One regressor: product 4, right 6, prior variance 0.5: 6 / (4 + 2).
    const { means, covariance } = coefficientsOf(
      1,
      () => 4,
      () => 6,
      () => 0.5,
    )
    expect(means[0]).toBeCloseTo(1, 12)
    expect(covariance[0]).toBeCloseTo(1 / 6, 12)
  })
})

describe('logarithm and exponential by table', () => {
  it('are the language’s own to twelve digits', () => {
    for (let x = 1e-30; x < 1e30; x *= 1.37) expect(Math.abs(log(x) - Math.log(x))).toBeLessThan(1e-12)
    for (let x = -699; x < 300; x += 0.173) expect(Math.abs(exp(x) / Math.exp(x) - 1)).toBeLessThan(1e-12)
    expect(exp(-Infinity)).toBe(0)
  })
})
