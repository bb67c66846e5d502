import { describe, expect, it } from 'vitest'
import { ASSUMED_NOISE, errorParts, learnParts, modelOfParts, partsEvidence, poolParts } from '../../core/following'
import { ASSUMED_WORLD, type MeasuringWorld } from '../../core/simulate/world'
import { measure } from '../../core/trials/trial'

/** What is learnt of a simulated studio. */
function learntIn(world: Partial<MeasuringWorld>, clients = 60) {
  const ends = measure({ world: { ...ASSUMED_WORLD, floorMm: 0, markMm: 0.1, ...world }, clients, looks: 12, seed: 21 })
  return learnParts(poolParts(ends.map(partsEvidence)))
}
const near = (value: number | undefined, truth: number, within: number) => {
  expect(Math.abs((value ?? NaN) - truth)).toBeLessThan(within * truth)
}

describe('the parts of the error, learnt', () => {
  // Simulation through the reading rules: a reading of 4 %, a mark of so many times it, a day common to all folds.
  it.each([
    ['as assumed', {}, { reading: 0.04, mark: 0.06, day: 0.03 }],
    ['marks found twice as badly', { markFactor: 3 }, { reading: 0.04, mark: 0.12, day: 0.03 }],
    ['a day effect of 7 %', { dayShare: 0.07 }, { reading: 0.04, mark: 0.06, day: 0.07 }],
    ['a clumsy hand', { share: 0.08 }, { reading: 0.08, mark: 0.12, day: 0.03 }],
  ] as const)('are told apart: %s', (_, world, truth) => {
    const learnt = learntIn(world)
    expect(learnt?.clients).toBe(60)
    near(learnt?.reading, truth.reading, 0.1)
    near(learnt?.mark, truth.mark, 0.15)
    near(learnt?.day, truth.day, 0.25)
  })

  it('does not take people who steadily lose for error', () => {
    const ends = measure({
      world: { ...ASSUMED_WORLD, floorMm: 0, markMm: 0.1 },
      clients: 60,
      looks: 12,
      seed: 22,
      client: () => ({ course: (week) => 1 - 0.02 * week }),
    })
    near(learnParts(poolParts(ends.map(partsEvidence)))?.day, 0.03, 0.3)
  })

  it('are for each client those of all others', () => {
    const all = measure({ clients: 30, looks: 8, seed: 23 }).map(partsEvidence)
    const pool = poolParts(all)
    for (const own of [0, 7, 29]) {
      const others = learnParts(poolParts(all.filter((_, i) => i !== own)))
      const without = learnParts(pool, all[own])
      expect(without?.clients).toBe(29)
      for (const part of ['reading', 'mark', 'day'] as const)
        expect(without?.[part]).toBeCloseTo(others?.[part] ?? NaN, 10)
    }
  })

  it('waits for five clients', () => {
    expect(learntIn({}, 4)).toBeNull()
    expect(learnParts(poolParts([]))).toBeNull()
  })

  it('share a total out that stays what it is', () => {
    const [own = []] = measure({ clients: 1, looks: 4 })
    const learnt = { reading: 0.04, mark: 0.12, day: 0.02, clients: 9 }
    const [plain, shared] = [null, learnt].map((one) => errorParts('sum', own, ASSUMED_NOISE, { learnt: one }))
    expect(shared?.sd).toBeCloseTo(plain?.sd ?? NaN, 9)
    expect(shared?.assumed).toBeCloseTo(plain?.assumed ?? NaN, 9)
    expect(Object.values(shared?.shares ?? {}).reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9)
    expect(shared?.shares.mark).toBeGreaterThan(plain?.shares.mark ?? 1)
    expect(modelOfParts(learnt).markFactor).toBeCloseTo(3, 9)
  })
})
