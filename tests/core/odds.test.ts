import * as fc from 'fast-check'
import { Matrix, CholeskyDecomposition, determinant, inverse } from 'ml-matrix'
import { describe, expect, it } from 'vitest'
import { COURSES, noiseTerms, runCourse, type CourseModel, type FilterRun } from '../../core/following/course-filter'
import { runCourses } from '../../core/following/course-runs'
import { ASSUMED_NOISE, evidenceOf, NOISE_GRID, type NoiseModel } from '../../core/following/noise'
import { oddsOf, type OddsSeries } from '../../core/following/odds'
import { judge, searchOf } from '../../core/following/verdict'
import { seededRandom } from '../../core/simulate'
import { covariance, filterSeries, SERIES, VALUES, VARIANCES, WEEKS } from '../support/dense'

/** Contrasts to the first visit: their squares by the covariance, and the log of its determinant. */
function contrasts(all: Matrix): { squares: number; log: number } {
  const n = VALUES.length
  const c = new Matrix(
    Array.from({ length: n - 1 }, (_, i) => Array.from({ length: n }, (_, j) => (j === 0 ? -1 : Number(j === i + 1)))),
  )
  const of = c.mmul(all).mmul(c.transpose())
  const y = c.mmul(Matrix.columnVector(VALUES))
  return { squares: y.transpose().mmul(inverse(of)).mmul(y).get(0, 0), log: -0.5 * Math.log(determinant(of)) }
}

// Against general linear algebra (ml-matrix): the whole covariance written out and inverted.
describe('the filters', () => {
  const courses: CourseModel[] = [{ kind: 'none' }, ...COURSES]
  it.each(NOISE_GRID.flatMap((noise) => courses.map((course) => [noise, course] as const)))(
    'give the likelihood of the contrasts under %o and %o',
    (noise, course) => {
      const series = filterSeries()
      const run = runCourse(series, noiseTerms(series, noise), course)
      const { squares, log } = contrasts(covariance(noise, course))
      expect(run.squares.at(-1)).toBeCloseTo(squares, 8)
      expect(run.logs.at(-1)).toBeCloseTo(log, 8)
    },
  )

  it.each(NOISE_GRID)('give every course at once the same under %o, after every visit', (noise) => {
    const series = filterSeries()
    const terms = noiseTerms(series, noise)
    const { still, moved } = runCourses(series, terms)
    const runs: [CourseModel, FilterRun][] = [
      [{ kind: 'none' }, still],
      ...COURSES.map((course, k): [CourseModel, FilterRun] => [course, moved[k] as FilterRun]),
    ]
    for (const [course, run] of runs) {
      const { squares, log } = contrasts(covariance(noise, course))
      expect(run.lastSquares).toBeCloseTo(squares, 8)
      expect(run.lastLog).toBeCloseTo(log, 8)
      const alone = runCourse(series, terms, course)
      expect(run.change).toBeCloseTo(alone.change, 8)
      expect(run.changeVariance).toBeCloseTo(alone.changeVariance, 8)
      alone.squares.forEach((one, i) => expect(run.squares[i]).toBeCloseTo(one, 8))
      alone.logs.forEach((one, i) => expect(run.logs[i]).toBeCloseTo(one, 8))
    }
    // Only the last asked for: the same. With other hands each by itself.
    const last = runCourses(series, terms, false)
    expect(last.moved.map(({ lastLog }) => lastLog)).toEqual(
      moved.map(({ lastLog }) => expect.closeTo(lastLog, 8) as number),
    )
    const others = filterSeries(['runa', 'runa', 'ivo', 'ivo', 'runa', 'ivo'], 40)
    const own = noiseTerms(others, noise)
    runCourses(others, own).moved.forEach((run, k) =>
      expect(run).toEqual(runCourse(others, own, COURSES[k] as CourseModel)),
    )
  })

  it('integrate the offset of other hands out', () => {
    const hands = ['runa', 'runa', 'ivo', 'ivo', 'runa', 'ivo']
    const series = filterSeries(hands, 40)
    for (const noise of NOISE_GRID) {
      const run = runCourse(series, noiseTerms(series, noise), { kind: 'walk', sd: 0.3 })
      const { squares, log } = contrasts(covariance(noise, { kind: 'walk', sd: 0.3 }, hands, 40))
      expect(run.squares.at(-1)).toBeCloseTo(squares, 8)
      expect(run.logs.at(-1)).toBeCloseTo(log, 8)
    }
  })

  it('estimate the change as the regression of it on the contrasts', () => {
    const noise = { rho: 0.6, white: 0.2 }
    const course = { kind: 'line' as const, sd: 0.5 }
    const series = filterSeries()
    const run = runCourse(series, noiseTerms(series, noise), course)
    // Generalised least squares with a flat level and the slope's prior, written out.
    const all = covariance(noise, { kind: 'none' })
    const x = new Matrix(WEEKS.map((week) => [1, week]))
    const weight = x.transpose().mmul(inverse(all))
    const precision = weight.mmul(x)
    precision.set(1, 1, precision.get(1, 1) + 1 / (course.sd ** 2 * series.unit))
    const found = inverse(precision).mmul(weight.mmul(Matrix.columnVector(VALUES)))
    const last = WEEKS.at(-1) ?? 0
    expect(run.change).toBeCloseTo(last * found.get(1, 0), 8)
    expect(run.changeVariance).toBeCloseTo(last ** 2 * inverse(precision).get(1, 1), 8)
  })
})

describe('the noise learnt', () => {
  it('has the restricted likelihood of a line about the visits, by linear algebra', () => {
    const { steps } = evidenceOf({ weeks: WEEKS, values: VALUES, variances: VARIANCES })
    const x = new Matrix(WEEKS.map((week) => [1, week / 10]))
    const said = NOISE_GRID.map((noise) => {
      const all = covariance(noise, { kind: 'none' })
      const gls = x.transpose().mmul(inverse(all)).mmul(x)
      const beta = inverse(gls).mmul(x.transpose().mmul(inverse(all)).mmul(Matrix.columnVector(VALUES)))
      const rest = Matrix.columnVector(VALUES).sub(x.mmul(beta))
      const lower = new CholeskyDecomposition(all).lowerTriangularMatrix.diagonal()
      return {
        squares: rest.transpose().mmul(inverse(all)).mmul(rest).get(0, 0),
        log: -lower.reduce((sum, one) => sum + Math.log(one), 0) - 0.5 * Math.log(determinant(gls)),
      }
    })
    const last = steps.at(-1)
    expect(last?.freedom).toBe(4)
    last?.squares.forEach((value, m) => expect(value).toBeCloseTo(said[m]?.squares ?? NaN, 8))
    // Likelihoods differ by the same between models; a constant of the values' scale is left out.
    last?.logs.forEach((value, m) =>
      expect(value - (last.logs[0] ?? 0)).toBeCloseTo((said[m]?.log ?? NaN) - (said[0]?.log ?? 0), 8),
    )
  })
})

describe('the odds', () => {
  const odds = (series: OddsSeries) => {
    const found = oddsOf(series, ASSUMED_NOISE)
    if (!found) throw new Error('no odds')
    return found
  }

  it('need two visits', () => {
    expect(oddsOf({ weeks: [0], values: [100], variances: [25] }, ASSUMED_NOISE)).toBeNull()
    expect(odds(SERIES).running[0]).toBeCloseTo(1, 12)
  })

  it('are the same in any unit, from any zero of time and with the sign turned', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 20, noNaN: true }), fc.integer({ min: -50, max: 50 }), (unit, zero) => {
        const other = odds({
          weeks: WEEKS.map((week) => week + zero),
          values: VALUES.map((value) => -value * unit),
          variances: VARIANCES.map((variance) => variance * unit ** 2),
        })
        const own = odds(SERIES)
        other.running.forEach((one, i) => expect(one / (own.running[i] ?? 1)).toBeCloseTo(1, 6))
        expect(other.change / unit).toBeCloseTo(-own.change, 6)
        expect(other.low / unit).toBeCloseTo(-own.high, 1)
      }),
      { numRuns: 25 },
    )
  })

  it('at an earlier look are those of the visits up to it', () => {
    const short = odds({
      weeks: WEEKS.slice(0, 4),
      values: VALUES.slice(0, 4),
      variances: VARIANCES.map(() => 25).slice(0, 4),
    })
    const long = odds({ weeks: WEEKS, values: VALUES, variances: VARIANCES.map(() => 25) })
    expect(long.running[3]).toBeCloseTo(short.odds, 9)
  })

  it('are the same whether every look is asked for or the last alone', () => {
    const hands = ['runa', 'runa', 'ivo', 'ivo', 'runa', 'ivo']
    for (const series of [SERIES, { ...SERIES, hands, offsetVariances: { ivo: 40 } }]) {
      const [all, last] = [oddsOf(series, ASSUMED_NOISE), oddsOf(series, ASSUMED_NOISE, false)]
      expect((last?.odds ?? 0) / (all?.odds ?? 1)).toBeCloseTo(1, 9)
      expect(last?.low).toBeCloseTo(all?.low ?? NaN, 6)
      expect(last?.running).toEqual([])
    }
    // Long enough for determinants to be taken up in parts.
    const weeks = Array.from({ length: 60 }, (_, i) => i)
    const long = { weeks, values: weeks.map((week) => 100 - week + (week % 3)), variances: weeks.map(() => 25) }
    expect((oddsOf(long, ASSUMED_NOISE, false)?.odds ?? 0) / (oddsOf(long, ASSUMED_NOISE)?.odds ?? 1)).toBeCloseTo(1, 6)
  })

  it('average one where nothing changes: the promise', () => {
    // Noise with its scale drawn from its prior and every model alike: what the odds assume, drawn apart from them.
    const random = seededRandom(3)
    const gamma = (shape: number) => {
      // A chi-squared of 2 shape degrees of freedom, halved.
      let sum = 0
      for (let i = 0; i < 2 * shape; i += 1) sum += random.normal() ** 2
      return sum / 2
    }
    const weeks = Array.from({ length: 12 }, (_, i) => i)
    let ever = 0
    const CLIENTS = 2000
    for (let c = 0; c < CLIENTS; c += 1) {
      const { rho, white } = NOISE_GRID[Math.floor(random.next() * NOISE_GRID.length)] as NoiseModel
      const scale = Math.sqrt(4 / gamma(4))
      let lasting = random.normal()
      const values = weeks.map((_, i) => {
        if (i > 0) lasting = rho * lasting + Math.sqrt(1 - rho ** 2) * random.normal()
        return 100 + 5 * scale * (Math.sqrt(1 - white) * lasting + Math.sqrt(white) * random.normal())
      })
      if (Math.max(...odds({ weeks, values, variances: weeks.map(() => 25) }).running) >= 20) ever += 1
    }
    // At most one in twenty; beyond 0.065 only once in a thousand runs were it exactly that.
    expect(ever / CLIENTS).toBeLessThan(0.065)
  }, 60_000)
})

describe('verdicts', () => {
  const weeks = Array.from({ length: 10 }, (_, i) => i * 2)
  const variances = weeks.map(() => 25)
  const falling = weeks.map((week, i) => 120 - 2 * week + (i % 2 ? 2 : -2))

  it('are real when the odds, the interval and every site left out agree', () => {
    const found = judge({ weeks, values: falling, variances }, { noise: ASSUMED_NOISE })
    expect(found?.verdict).toBe('real')
    expect(found?.high).toBeLessThan(0)
    expect(found?.change).toBeGreaterThan(-45)
    expect(found?.change).toBeLessThan(-25)
  })

  it('rest on one site when the others say nothing', () => {
    const still = { weeks, values: weeks.map((_, i) => 90 + (i % 2)), variances }
    const found = judge(
      { weeks, values: falling, variances },
      { noise: ASSUMED_NOISE, without: () => [{ site: 'thigh', series: still }] },
    )
    expect(found).toMatchObject({ verdict: 'one-site', site: 'thigh' })
  })

  it('say that it moved and came back', () => {
    const values = weeks.map((_, i) => (i > 2 && i < 7 ? 70 : 120) + (i % 2))
    expect(judge({ weeks, values, variances }, { noise: ASSUMED_NOISE })?.verdict).toBe('came-back')
  })

  it('lean below twenty, and are not told apart below three', () => {
    const slow = judge({ weeks: weeks.slice(0, 5), values: falling.slice(0, 5), variances }, { noise: ASSUMED_NOISE })
    expect(slow?.odds).toBeGreaterThan(1)
    const still = judge({ weeks, values: weeks.map((_, i) => 100 + (i % 3)), variances }, { noise: ASSUMED_NOISE })
    expect(still?.verdict).toBe('not-told')
    expect(still?.low).toBeLessThan(0)
    expect(still?.high).toBeGreaterThan(0)
  })

  it('pay for searched starts, all of which together keep the promise', () => {
    const sum = Array.from({ length: 5000 }, (_, i) => 1 / searchOf(i + 1)).reduce((a, b) => a + b, 0)
    expect(sum).toBeCloseTo(1, 3)
    const series = { weeks, values: falling, variances }
    const chosen = judge(series, { noise: ASSUMED_NOISE })
    const found = judge(series, { noise: ASSUMED_NOISE, searched: searchOf(4) })
    expect(found?.odds).toBeCloseTo((chosen?.odds ?? 0) / 20, 9)
  })
})
