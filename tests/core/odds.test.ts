import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { chosenShare, searchedShare } from '../../core/following/budget'
import { COURSES, ESTIMATE_COURSES } from '../../core/following/course-models'
import { FREEDOMS, NOISE_TYPES, noiseFrom, placesOf, SCALES } from '../../core/following/noise'
import { firstLookOver, oddsOf, type OddsSeries } from '../../core/following/odds'
import { ASSUMED_NOISE } from '../../core/following/studio-grid'
import { judge, realLine, type VerdictKind } from '../../core/following/verdict'
import { seededRandom, type Random } from '../../core/simulate'
import { chiSquareDrawn } from '../../core/simulate/chi-square'
import { HANDS, SERIES, VALUES, VARIANCES, WEEKS } from '../support/dense'

const always = () => ASSUMED_NOISE
const odds = (series: OddsSeries) => {
  const found = oddsOf(series, ASSUMED_NOISE, { running: always })
  if (!found) throw new Error('no odds')
  return found
}

describe('the courses', () => {
  it('are a mixture: any mixture keeps the promise', () => {
    for (const all of [COURSES, ESTIMATE_COURSES])
      expect(all.reduce((sum, { weight }) => sum + weight, 0)).toBeCloseTo(1, 9)
  })
})

describe('the odds', () => {
  it('need two visits on different days', () => {
    expect(oddsOf({ weeks: [0], values: [100], variances: [25] }, ASSUMED_NOISE)).toBeNull()
    expect(oddsOf({ weeks: [0, 0], values: [100, 160], variances: [25, 25] }, ASSUMED_NOISE)).toBeNull()
    expect(odds(SERIES).running[0]).toBe(1)
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
    const short = odds({ weeks: WEEKS.slice(0, 4), values: VALUES.slice(0, 4), variances: VARIANCES.slice(0, 4) })
    expect(odds(SERIES).running[3]).toBeCloseTo(short.odds, 4)
  })

  it('are the same whether every look is asked for or the last alone', () => {
    for (const series of [SERIES, { ...SERIES, hands: HANDS, offsetVariances: { ivo: 40 } }]) {
      const [all, last] = [odds(series), oddsOf(series, ASSUMED_NOISE)]
      expect(last?.odds).toBe(all.odds)
      expect([last?.low, last?.high]).toEqual([all.low, all.high])
      expect(last?.running).toEqual([])
    }
  })

  it('find the first look that reaches what is asked', () => {
    const weeks = Array.from({ length: 20 }, (_, i) => i)
    const falling = { weeks, values: weeks.map((week) => 100 - 3 * week), variances: weeks.map(() => 25) }
    const { running } = odds(falling)
    const place = running.findIndex((one) => one >= 20)
    expect(place).toBeGreaterThan(2)
    expect(firstLookOver(falling, ASSUMED_NOISE, { from: 1, asked: 20 })).toBe(place)
    expect(firstLookOver(falling, ASSUMED_NOISE, { from: 1, asked: 1e300 })).toBeNull()
  })

  it('average one where nothing changes: the promise', () => {
    // Noise drawn from the grid the odds assume, apart from them: at most one in twenty is ever given 20 and more.
    const random = seededRandom(3)
    const weeks = Array.from({ length: 12 }, (_, i) => i)
    const CLIENTS = 700
    let ever = 0
    for (let c = 0; c < CLIENTS; c += 1) {
      const values = drawn(random, weeks)
      if (Math.max(...odds({ weeks, values, variances: weeks.map(() => 25) }).running) >= 20) ever += 1
    }
    // Beyond 0.076 only once in a thousand runs were it exactly one in twenty.
    expect(ever / CLIENTS).toBeLessThan(0.076)
    expect(ever).toBeGreaterThan(0)
  }, 120_000)
})

/** A level with noise of a cell drawn from what is assumed. */
function drawn(random: Random, weeks: readonly number[]): number[] {
  let left = random.next()
  const k = ASSUMED_NOISE.weights.findIndex((weight) => (left -= weight) < 0)
  const { type, scale, freedom } = placesOf(ASSUMED_NOISE.cells[Math.max(0, k)] as number)
  const { rho, white, slow } = NOISE_TYPES[type] as (typeof NOISE_TYPES)[number]
  const nu = FREEDOMS[freedom] as number
  const sd = 5 * Math.sqrt(((SCALES[scale] as number) * nu) / chiSquareDrawn(random, nu))
  const [drift, cosine, sine] = [0.05, 0.4, 0.4].map((one) => (slow ? one * random.normal() : 0)) as [
    number,
    number,
    number,
  ]
  let lasting = random.normal()
  return weeks.map((week, i) => {
    if (i > 0) lasting = rho * lasting + Math.sqrt(1 - rho ** 2) * random.normal()
    const turn = (2 * Math.PI * week) / 52.18
    const below = drift * week + cosine * Math.cos(turn) + sine * Math.sin(turn)
    return 100 + sd * (Math.sqrt(1 - white) * lasting + Math.sqrt(white) * random.normal() + below)
  })
}

describe('verdicts', () => {
  const weeks = Array.from({ length: 10 }, (_, i) => i * 2)
  const variances = weeks.map(() => 25)
  const falling = weeks.map((week, i) => 120 - 2 * week + (i % 2 ? 2 : -2))
  const told = (values: number[], more = {}) => judge({ weeks, values, variances }, { noise: ASSUMED_NOISE, ...more })
  /** The same noise, learnt from many others. */
  const many = noiseFrom(
    Float64Array.from({ length: 459 }, (_, cell) => (placesOf(cell).type === 0 && placesOf(cell).scale === 2 ? 1 : 0)),
    { clients: 40, visits: 400, followed: 40 },
  )

  it('are real when the odds, the interval and every site left out agree', () => {
    const found = told(falling)
    expect(found?.verdict).toBe('real')
    expect(found?.high).toBeLessThan(0)
    expect(found?.change).toBeGreaterThan(-45)
    expect(found?.change).toBeLessThan(-25)
  })

  it('are of one fold when the others say nothing', () => {
    const still = { weeks, values: weeks.map((_, i) => 90 + (i % 2)), variances }
    const found = told(falling, { without: () => [{ site: 'thigh', series: still }] })
    expect(found).toMatchObject({ verdict: 'one-fold', site: 'thigh' })
  })

  it('stay real while the odds are two and over, and say since when', () => {
    // Lost fast, then held: what was real is not unsaid.
    const held = weeks.map((_, i) => (i < 4 ? 120 - 12 * i : 84) + (i % 2))
    const found = told(held, { running: always })
    expect(found?.verdict).toBe('real')
    expect(found?.realAt).toBeGreaterThan(1)
    expect(found?.realAt).toBeLessThan(6)
    // Looked at for the first time with odds beneath the line it is not.
    const [before, after] = [
      { real: true, once: true, farthest: 30 },
      { real: false, once: false, farthest: 0 },
    ]
    const between = weeks.map((week, i) => 120 - 1.15 * week + (i % 2 ? 2.5 : -2.5))
    const [was, not] = [told(between, { before }), told(between, { before: after })]
    expect(was?.odds).toBeGreaterThan(2.5)
    expect(was?.odds).toBeLessThan(19)
    expect([was?.verdict, not?.verdict]).toEqual(['real', 'some-sign' satisfies VerdictKind])
  })

  it('say that it is back where it was, not that it is real', () => {
    const values = weeks.map((_, i) => (i > 2 && i < 7 ? 70 : 120) + (i % 2))
    expect(told(values, { running: always })?.verdict).toBe('back')
  })

  it('show some sign from three, are too early to tell between, and show no sign beneath a third', () => {
    const at = (share: number) => told(weeks.map((week, i) => 120 - share * week + (i % 2 ? 2 : -2)))
    const all = Array.from({ length: 40 }, (_, k) => at(k / 20))
    for (const one of all) {
      const counted = (one?.odds ?? 0) * chosenShare(1)
      if (one?.verdict === 'some-sign') expect(counted).toBeGreaterThanOrEqual(3)
      if (one?.verdict === 'too-early') expect(one.odds).toBeGreaterThanOrEqual(1 / 3)
      if (one?.verdict === 'no-sign') expect(one.odds).toBeLessThan(1 / 3)
    }
    expect(new Set(all.map((one) => one?.verdict))).toEqual(new Set(['no-sign', 'too-early', 'some-sign', 'real']))
  })

  it('hold steady where any change is likely too small to matter, and enough others were measured', () => {
    const days = Array.from({ length: 16 }, (_, i) => i * 2)
    const level = { weeks: days, values: days.map((_, i) => 120 + (i % 3) - 1), variances: days.map(() => 25) }
    expect(judge(level, { noise: many, smallest: 6 })?.verdict).toBe('steady')
    // Too small a size, nobody else, or no size at all: no sign of a change, and no more.
    expect(judge(level, { noise: many, smallest: 1 })?.verdict).toBe('no-sign')
    expect(judge(level, { noise: many })?.verdict).toBe('no-sign')
    expect(judge(level, { noise: ASSUMED_NOISE, smallest: 6 })?.verdict).toBe('no-sign')
  })

  it('ask for less in a large studio, and more of the weight', () => {
    expect([realLine('sum', 0), realLine('weight', 0)]).toEqual([17, 24])
    expect(realLine('sum', 3)).toBe(16)
    expect(realLine('sum', 1e9)).toBeCloseTo(15, 6)
    expect(realLine('weight', 1e9)).toBeCloseTo(16, 6)
  })
})

describe('the budget of starts', () => {
  it('is one for all starts chosen beforehand and all that can be searched', () => {
    const all = Array.from({ length: 100_000 }, (_, i) => chosenShare(i + 1) + searchedShare(i + 1))
    expect(all.reduce((sum, one) => sum + one, 0)).toBeCloseTo(1, 4)
  })

  it('asks for as much more as a start has less of it', () => {
    const weeks = Array.from({ length: 10 }, (_, i) => i * 2)
    const series = { weeks, values: weeks.map((week) => 120 - 3 * week), variances: weeks.map(() => 25) }
    const [chosen, found] = [undefined, searchedShare(4)].map((share) =>
      judge(series, { noise: ASSUMED_NOISE, ...(share ? { share } : {}) }),
    )
    expect(chosen?.needed).toBeCloseTo(17 / 0.85, 9)
    expect(found?.needed).toBeCloseTo((17 * 20) / 0.05, 6)
    expect(found?.odds).toBe(chosen?.odds)
  })
})
