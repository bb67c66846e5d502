import { describe, expect, it } from 'vitest'
import { seededRandom, simulateFolds, simulateVisits } from '../../core/simulate'
import { sessionState } from '../../core/readings'
import { PROTOCOLS } from '../../core/protocols'

const seven = PROTOCOLS['laboratory-7']
const trueFolds = Object.fromEntries(seven.sites.map((site) => [site, 15]))
const startedAt = new Date('2026-10-23T17:20:00Z')

describe('the simulated assessor', () => {
  it('takes the same session for the same seed and another for another', () => {
    const take = (seed: number) =>
      simulateFolds(seededRandom(seed), { protocol: seven, trueFolds, technicalError: 0.04, startedAt })
    expect(take(7)).toEqual(take(7))
    expect(take(7)).not.toEqual(take(8))
  })

  it('reads to the half millimetre and ends with every site settled', () => {
    const taken = simulateFolds(seededRandom(3), { protocol: seven, trueFolds, technicalError: 0.1, startedAt })
    expect(taken.every(({ value }) => Number.isInteger(value * 2))).toBe(true)
    expect(sessionState(seven, taken, []).complete).toBe(true)
  })

  it('errs by about its technical error', () => {
    const random = seededRandom(11)
    const values = Array.from({ length: 60 }, () =>
      simulateFolds(random, { protocol: seven, trueFolds, technicalError: 0.05, startedAt }),
    ).flatMap((taken) => taken.map(({ value }) => value))
    const mean = values.reduce((a, b) => a + b, 0) / values.length
    const spread = Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (values.length - 1))
    // 5 % of 15 mm = 0.75, with rounding to halves (0.144) added in squares: 0.76.
    expect(mean).toBeCloseTo(15, 0)
    expect(spread).toBeGreaterThan(0.65)
    expect(spread).toBeLessThan(0.9)
  })
})

describe('a simulated course', () => {
  it('goes from the first sum to the last and leaves the newest visit open when asked', () => {
    const starts = [0, 30, 60, 90].map((days) => new Date(startedAt.getTime() + days * 86_400_000))
    const visits = simulateVisits(seededRandom(5), {
      course: { sex: 'female', sumMm: { first: 140, last: 80 }, weightKg: { first: 75, last: 70 }, wave: 0 },
      protocol: seven,
      technicalError: 0.03,
      starts,
      unfinishedAfter: 9,
    })
    const sums = visits.map(({ readings }) => sessionState(seven, readings, []).settledSum)
    expect(sums[0]).toBeGreaterThan((sums[2] ?? 0) + 20)
    expect(visits.map(({ finishedAt }) => finishedAt === null)).toEqual([false, false, false, true])
    expect(visits[3]?.readings.filter(({ site }) => site !== 'weight')).toHaveLength(9)
  })
})
