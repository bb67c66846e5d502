import { describe, expect, it } from 'vitest'
import { chanceApart, copyingIn, isCopying, repeatPairs } from '../../core/following/copies'
import type { SpanEnd } from '../../core/composition'
import { seededRandom } from '../../core/simulate'
import { ASSUMED_WORLD } from '../../core/simulate/world'
import { measure } from '../../core/trials/trial'

const accused = (ends: SpanEnd[][]) => ends.filter((own) => copyingIn(own).size > 0).length

describe('second readings that repeat the first', () => {
  it('agree as often as two rounded readings do', () => {
    const { normal, next } = seededRandom(5)
    for (const spread of [0.3, 0.8, 2]) {
      const counts = [0, 0, 0, 0]
      const DRAWS = 40_000
      for (let i = 0; i < DRAWS; i += 1) {
        const at = 10 * next()
        const [a, b] = [0, 1].map(() => Math.round(at + (spread / Math.SQRT2) * normal())) as [number, number]
        const apart = Math.abs(a - b)
        if (apart < counts.length) counts[apart] = (counts[apart] as number) + 1
      }
      counts.forEach((count, apart) => expect(count / DRAWS).toBeCloseTo(chanceApart(apart, spread), 2))
    }
  })

  // Common practice: a trained assessor reads folds to 2 %, and many calipers are marked in whole millimetres.
  it.each([
    ['a skilled hand with whole millimetres', { ...ASSUMED_WORLD, share: 0.02, floorMm: 0.1, markMm: 1 }],
    ['a skilled hand with half millimetres', { ...ASSUMED_WORLD, share: 0.01, floorMm: 0.1 }],
    ['a hand as assumed', ASSUMED_WORLD],
    ['a clumsy hand', { ...ASSUMED_WORLD, share: 0.09, markMm: 1 }],
  ])('of sixty honest hands at most one is suspected: %s', (_, world) => {
    expect(accused(measure({ world, clients: 60, looks: 12, seed: 5 }))).toBeLessThanOrEqual(1)
  })

  it.each([
    ['four of five, half millimetres', { ...ASSUMED_WORLD, copied: 0.8 }],
    ['half, half millimetres', { ...ASSUMED_WORLD, copied: 0.5 }],
    ['four of five, whole millimetres', { ...ASSUMED_WORLD, copied: 0.8, markMm: 1 }],
  ])('who copies is found out: %s', (_, world) => {
    expect(accused(measure({ world, clients: 40, looks: 12, seed: 5 }))).toBeGreaterThan(36)
  })

  it('goes by the caliper’s own marks where they are on record', () => {
    const [own = []] = measure({ world: { ...ASSUMED_WORLD, share: 0.02, markMm: 1 }, clients: 1, looks: 12, seed: 5 })
    const marked = own.map((end) => ({
      ...end,
      result: { ...end.result },
      facts: { ...end.facts, policies: { ...end.facts.policies, markMm: 0.1 } },
    })) as SpanEnd[]
    // Read to a tenth, whole millimetres that agree so often are no chance.
    expect([...repeatPairs(own).values()].map((pairs) => isCopying(pairs))).toEqual([false])
    expect([...repeatPairs(marked).values()].map((pairs) => isCopying(pairs))).toEqual([true])
  })
})
