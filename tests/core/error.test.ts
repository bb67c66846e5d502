import fc from 'fast-check'
import { quantileSeq } from 'mathjs'
import { describe, expect, it } from 'vitest'
import {
  addRepeats,
  assessorErrors,
  NO_REPEATS,
  percentTem,
  pooledTem,
  priorErrors,
  quantileOf,
  shrunkTem,
  technicalError,
} from '../../core/error'
import { seededRandom } from '../../core/simulate'

const pair = fc.tuple(fc.double({ min: 2, max: 60, noNaN: true }), fc.double({ min: 2, max: 60, noNaN: true }))

function pooled(groups: readonly (readonly number[])[]) {
  return groups.reduce((repeats, values) => addRepeats(repeats, values), NO_REPEATS)
}

describe('technical error of measurement', () => {
  it('is sqrt(sum d^2 / 2n), by hand', () => {
    // d = 1, 0, 2: sqrt((1 + 0 + 4) / 6) = 0.912871
    const pairs = [
      [10, 11],
      [12, 12],
      [20, 22],
    ] as const
    expect(technicalError(pairs)).toBeCloseTo(0.912871, 6)
    expect(percentTem(0.912871, 14.5)).toBeCloseTo(6.2957, 4)
    expect(technicalError([])).toBeNull()
  })

  it('for pairs equals the pooled within-site standard deviation', () => {
    fc.assert(
      fc.property(fc.array(pair, { minLength: 1, maxLength: 30 }), (pairs) => {
        expect(pooledTem(pooled(pairs))).toBeCloseTo(technicalError(pairs) ?? NaN, 9)
      }),
    )
  })

  it('scales with the readings and does not move with an offset', () => {
    fc.assert(
      fc.property(
        fc.array(pair, { minLength: 1, maxLength: 20 }),
        fc.double({ min: 0.1, max: 10, noNaN: true }),
        (pairs, k) => {
          const scaled = pairs.map(([a, b]) => [a * k, b * k] as const)
          const moved = pairs.map(([a, b]) => [a + k, b + k] as const)
          const tem = technicalError(pairs) ?? NaN
          expect(technicalError(scaled)).toBeCloseTo(tem * k, 8)
          expect(technicalError(moved)).toBeCloseTo(tem, 8)
        },
      ),
    )
  })

  it('takes three or more readings a site, by hand', () => {
    // 10, 11, 12: squares 2 on 2 degrees of freedom; 20, 22: 2 on 1. sqrt(4 / 3).
    const repeats = pooled([
      [10, 11, 12],
      [20, 22],
    ])
    expect(pooledTem(repeats)).toBeCloseTo(Math.sqrt(4 / 3), 12)
  })

  it('is shrunk to 5 % of the mean while little is known, by hand', () => {
    // 10 pairs 2 mm apart at 20 mm: sum d^2 / 2 = 20; t0 = 1: sqrt((10 x 1 + 20) / 20) = 1.224745.
    const repeats = pooled(Array.from({ length: 10 }, () => [19, 21]))
    expect(shrunkTem(repeats, 20, 'fold')).toBeCloseTo(1.224745, 6)
    expect(shrunkTem(NO_REPEATS, 20, 'fold')).toBeCloseTo(1, 12)
    expect(shrunkTem(NO_REPEATS, 80, 'girth')).toBeCloseTo(0.8, 12)
  })
})

describe('an assessor’s own error', () => {
  const now = '2026-11-20T00:00:00.000Z'
  const visit = (assessorId: string, at: string, values: number[]) => ({
    site: 'chest' as const,
    assessorId,
    at,
    values,
  })

  it('is learnt by site and assessor, from a window of days', () => {
    const visits = [
      ...Array.from({ length: 40 }, () => visit('runa', '2026-10-01T00:00:00.000Z', [9.5, 10.5])),
      visit('runa', '2025-10-01T00:00:00.000Z', [5, 15]),
      visit('ivo', '2026-10-01T00:00:00.000Z', [9, 11]),
    ]
    const errors = assessorErrors(visits, now)
    // 40 pairs, d = 1: sum d^2 / 2 = 20; t0 = 0.5: sqrt((10 x 0.25 + 20) / 50) = 0.670820 at 10 mm.
    expect(errors('chest', 'runa')).toMatchObject({ repeats: 40, priorWeight: 0.2 })
    expect(errors('chest', 'runa').share).toBeCloseTo(0.067082, 6)
    expect(errors('chest', 'ivo').repeats).toBe(1)
    expect(errors('thigh', 'runa')).toEqual(priorErrors('thigh', 'runa'))
    expect(errors('waist', undefined).share).toBe(0.01)
  })

  it('comes near the truth with many repeats', () => {
    const random = seededRandom(9)
    const visits = Array.from({ length: 2000 }, () =>
      visit('runa', '2026-10-01T00:00:00.000Z', [10 + 0.8 * random.normal(), 10 + 0.8 * random.normal()]),
    )
    expect(assessorErrors(visits, now)('chest', 'runa').share).toBeCloseTo(0.08, 2)
  })
})

describe('quantiles against mathjs', () => {
  it('agrees with its linear interpolation (type 7), whatever the order of the values', () => {
    const values = fc.array(fc.double({ min: -50, max: 50, noNaN: true }), { minLength: 2, maxLength: 60 })
    fc.assert(
      fc.property(values, fc.integer({ min: 0, max: 1000 }), (sample, thousandths) => {
        const share = thousandths / 1000
        expect(quantileOf(Float64Array.from(sample), share)).toBeCloseTo(Number(quantileSeq(sample, share)), 9)
      }),
    )
  })
})
