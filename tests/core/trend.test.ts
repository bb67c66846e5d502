import { jStat } from 'jstat'
import { Matrix, inverse } from 'ml-matrix'
import { describe, expect, it } from 'vitest'
import {
  logGamma,
  recomposition,
  sevenDayMean,
  smoothTrend,
  START,
  studentCdf,
  weightModel,
  type Observation,
} from '../../core/trend'
import { dayNumber } from '../../core/calendar'
import { seededRandom } from '../../core/simulate'
import { Z_95 } from '../../core/error'

describe('the mean of a week', () => {
  const weighIns = ['01', '02', '03', '05', '07', '08'].map((day, i) => ({ day: `2026-11-${day}`, weightKg: 70 + i }))

  it('takes the last seven days, as many as there are, and says how many', () => {
    expect(sevenDayMean(weighIns, '2026-11-07')).toEqual({ weightKg: 72, count: 5 })
    expect(sevenDayMean(weighIns, '2026-11-08')).toEqual({ weightKg: 73, count: 5 })
  })

  it('needs three', () => {
    expect(sevenDayMean(weighIns, '2026-11-02')).toBeNull()
    expect(sevenDayMean(weighIns, '2026-11-13')).toBeNull()
  })

  it('takes the first of two weigh-ins on one day', () => {
    const twice = [...weighIns, { day: '2026-11-07', weightKg: 99 }]
    expect(sevenDayMean(twice, '2026-11-07')).toEqual({ weightKg: 72, count: 5 })
  })

  it('counts days across months and years', () => {
    expect(dayNumber('2027-01-01') - dayNumber('2026-12-31')).toBe(1)
    expect(dayNumber('2024-03-01') - dayNumber('2024-02-28')).toBe(2)
  })
})

/**
 * The same model solved at once: minimise observation, movement and starting terms over all levels and rates together
 * (dense generalised least squares). Gives estimates and their variances.
 */
function denseSolution(observations: readonly Observation[], observationSd: number, rateSd: number) {
  const n = observations.length
  const precision = Matrix.zeros(2 * n, 2 * n)
  const right = Matrix.zeros(2 * n, 1)
  const add = (rows: number[][], columns: number[], weight: Matrix, target: number[]) => {
    const design = new Matrix(rows)
    const weighted = design.transpose().mmul(weight)
    const square = weighted.mmul(design)
    const pull = weighted.mmul(Matrix.columnVector(target))
    columns.forEach((r, i) => {
      right.set(r, 0, right.get(r, 0) + pull.get(i, 0))
      columns.forEach((c, j) => precision.set(r, c, precision.get(r, c) + square.get(i, j)))
    })
  }
  observations.forEach(({ day, value }, i) => {
    add([[1, 0]], [2 * i, 2 * i + 1], new Matrix([[1 / observationSd ** 2]]), [value])
    const before = observations[i - 1]
    if (!before) {
      const start = Matrix.diag([1 / START.levelSd ** 2, 1 / START.rateSd ** 2])
      add(
        [
          [1, 0],
          [0, 1],
        ],
        [0, 1],
        start,
        [value, 0],
      )
      return
    }
    const dt = day - before.day
    const q = rateSd ** 2
    const movement = new Matrix([
      [(q * dt ** 3) / 3, (q * dt ** 2) / 2],
      [(q * dt ** 2) / 2, q * dt],
    ])
    add(
      [
        [-1, -dt, 1, 0],
        [0, -1, 0, 1],
      ],
      [2 * i - 2, 2 * i - 1, 2 * i, 2 * i + 1],
      inverse(movement),
      [0, 0],
    )
  })
  const covariance = inverse(precision)
  const estimate = covariance.mmul(right)
  return observations.map((_, i) => ({
    level: estimate.get(2 * i, 0),
    rate: estimate.get(2 * i + 1, 0),
    levelVariance: covariance.get(2 * i, 2 * i),
    rateVariance: covariance.get(2 * i + 1, 2 * i + 1),
  }))
}

describe('the weight trend against a dense least-squares solution of the same model', () => {
  it.each([3, 8, 21])('agrees in level, rate and both variances (seed %d)', (seed) => {
    const random = seededRandom(seed)
    let day = 0
    const observations = Array.from({ length: 24 }, () => {
      day += 1 + Math.floor(3 * random.next())
      return { day, value: 72 - 0.03 * day + 0.5 * random.normal() }
    })
    const model = weightModel(72)
    const smoothed = smoothTrend(observations, model)
    const dense = denseSolution(observations, model.observationSd, model.rateSd)
    dense.forEach((expected, i) => {
      expect(smoothed[i]?.level).toBeCloseTo(expected.level, 5)
      expect(smoothed[i]?.rate).toBeCloseTo(expected.rate, 6)
      expect((smoothed[i]?.levelVariance ?? 0) / expected.levelVariance).toBeCloseTo(1, 3)
      expect((smoothed[i]?.rateVariance ?? 0) / expected.rateVariance).toBeCloseTo(1, 3)
    })
  })

  it('finds a steady loss with an interval that holds it', () => {
    const random = seededRandom(4)
    const observations = Array.from({ length: 60 }, (_, day) => ({
      day,
      value: 80 - 0.07 * day + 0.5 * random.normal(),
    }))
    const last = smoothTrend(observations, weightModel(80)).at(-1)
    if (!last) throw new Error('no trend')
    expect(Math.abs(last.rate - -0.07)).toBeLessThan(Z_95 * Math.sqrt(last.rateVariance))
    expect(last.levelVariance).toBeLessThan(0.56 ** 2 / 4)
  })

  it('takes any order, two weigh-ins on one day, one, and none', () => {
    const observations = [
      { day: 3, value: 71 },
      { day: 1, value: 70 },
      { day: 3, value: 71.4 },
    ]
    const states = smoothTrend(observations, weightModel(70))
    expect(states.map(({ day }) => day)).toEqual([1, 3, 3])
    expect(states[1]?.level).toBeCloseTo(states[2]?.level ?? 0, 9)
    expect(smoothTrend([{ day: 0, value: 70 }], weightModel(70))[0]?.level).toBeCloseTo(70, 9)
    expect(smoothTrend([], weightModel(70))).toEqual([])
  })
})

describe('Student’s t against jstat', () => {
  it('is within a millionth of it, as exact as the mixtures of the odds need', () => {
    for (const freedom of [5, 9, 24, 60, 224])
      for (let t = -8; t <= 8; t += 0.25)
        expect(Math.abs(studentCdf(t, freedom) - jStat.studentt.cdf(t, freedom))).toBeLessThan(1e-6)
  })

  it('uses the normal quantile everybody uses', () => {
    expect(Z_95).toBeCloseTo(jStat.normal.inv(0.975, 0, 1), 3)
  })

  it('stands on a gamma function that agrees with it', () => {
    for (const x of [0.5, 1, 1.5, 4, 12.25, 80, 300]) expect(logGamma(x)).toBeCloseTo(jStat.gammaln(x), 9)
  })
})

describe('recomposition score', () => {
  const pound = 0.45359237
  // Common practice: two pounds off the scale of which one is lean: zero; scale still, a pound moved: plus two.
  it.each([
    [-pound, -pound, 0],
    [-pound, pound, 2],
    [-2 * pound, 0, 2],
    [pound, 0, -1],
  ])('fat %d kg, lean %d kg: %d points', (fat, lean, points) => {
    expect(recomposition({ change: lean - fat, low: 0, high: 0 }, 'lb').points).toBeCloseTo(points, 12)
  })

  it('counts kilograms where asked, with its interval', () => {
    expect(recomposition({ change: 2, low: 1.5, high: 2.5 }, 'kg')).toEqual({
      points: 2,
      low: 1.5,
      high: 2.5,
      unit: 'kg',
    })
  })
})
