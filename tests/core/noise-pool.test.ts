import { describe, expect, it } from 'vitest'
import { ASSUMED_NOISE, evidenceOf, NOISE_GRID, type Evidence } from '../../core/following/noise'
import { EvidencePool, learnNoise } from '../../core/following/noise-pool'
import { logGamma } from '../../core/trend/student'
import { seededRandom } from '../../core/simulate'
import { ASSUMED_WORLD } from '../../core/simulate/world'
import { drawnIntervals } from '../../core/trials/drawn'

/** Clients of a studio on a sum of 90 with a visit sd of 6 assumed; the true sd of each, and what becomes of them. */
function historiesOf(sds: readonly number[], { visits = 14, wild = 0 } = {}, seed = 11): Evidence[] {
  const random = seededRandom(seed)
  return sds.map((sd, place) => {
    const weeks = Array.from({ length: visits }, (_, i) => i)
    let walked = 0
    const values = weeks.map((week) => {
      if (place < wild) walked += 15 * random.normal()
      return 90 - week + walked + sd * random.normal()
    })
    return evidenceOf({ weeks, values, variances: weeks.map(() => 36) })
  })
}

const same = (count: number, sd: number) => Array.from({ length: count }, () => sd)
/** Scale held on the mean, against the assumed variance. */
const scaleOf = ({ models }: ReturnType<typeof learnNoise>) =>
  models.reduce((sum, { weight, a, b }) => sum + (weight * b) / a, 0)

describe('the noise learnt from others', () => {
  it('stays as assumed without others, and is held back by what was assumed', () => {
    expect(learnNoise([])).toBe(ASSUMED_NOISE)
    const others = historiesOf(same(60, 12))
    const { models, learntFrom } = learnNoise(others)
    expect(learntFrom).toEqual({ clients: 60, visits: 60 * 14, freedom: 60 * 11 })
    const white = models.find(({ rho }) => rho === 0)
    // Twice the assumed sd: eight degrees of freedom at 1, sixteen at 4.
    expect((white?.b ?? 0) / (white?.a ?? 1)).toBeCloseTo((8 + 16 * 4) / 24, 0)
    expect(Math.max(...models.map(({ weight }) => weight))).toBe(white?.weight)
    // Nothing from after the look.
    expect(learnNoise(others, 1)).toBe(ASSUMED_NOISE)
  })

  it('has the scale at which multivariate t densities about it are likeliest, the assumed one counting as eight', () => {
    const all = historiesOf([4, 5, 6, 7, 8, 9, 20], { visits: 8 }, 3)
    const { models, learntFrom } = learnNoise(all)
    NOISE_GRID.forEach((_, m) => {
      // Density of what is left over of each history (Lange, Little and Taylor 1989), of the prior in log scale.
      const logDensity = (scale: number) =>
        all.reduce(
          (sum, { steps }) => {
            const { freedom = 0, squares = [] } = steps.at(-1) ?? {}
            const q = squares[m] ?? NaN
            return (
              sum +
              logGamma((12 + freedom) / 2) -
              logGamma(6) -
              (freedom / 2) * Math.log(12 * Math.PI * scale) -
              ((12 + freedom) / 2) * Math.log(1 + q / (12 * scale))
            )
          },
          -4 * Math.log(scale) - 4 / scale,
        )
      const tried = Array.from({ length: 4000 }, (_, i) => 0.02 * 1.0015 ** i)
      const likeliest = tried.reduce((best, one) => (logDensity(one) > logDensity(best) ? one : best))
      // What is held stands for sixteen degrees of freedom at the squares per degree that were found.
      const { a, b } = models[m] ?? { a: NaN, b: NaN }
      const perFreedom = (b - 4) / (a - 4)
      const { freedom } = learntFrom
      expect((8 + freedom * perFreedom) / (8 + freedom) / likeliest).toBeCloseTo(1, 2)
    })
  })

  it('is not widened by the few whom no smooth course follows', () => {
    const calm = scaleOf(learnNoise(historiesOf(same(56, 6))))
    const among = scaleOf(learnNoise(historiesOf(same(64, 6), { wild: 8 })))
    expect(among / calm).toBeLessThan(1.25)
    // They are as wide as this by themselves.
    expect(scaleOf(learnNoise(historiesOf(same(8, 6), { wild: 8 })))).toBeGreaterThan(3)
  })

  it('of many is that of all others within some hundredths, of few exactly, studies of the assessor beside', () => {
    const study: Evidence = {
      weeks: [0],
      steps: [{ freedom: 20, squares: NOISE_GRID.map(() => 10), logs: NOISE_GRID.map(() => 0) }],
      ofStudy: true,
    }
    const widths = (count: number) => Array.from({ length: count }, (_, i) => 4 + (i % 5))
    for (const [count, within] of [
      [70, 0.03],
      [30, 1e-12],
    ] as const) {
      const all = historiesOf(widths(count))
      const pool = new EvidencePool(all)
      for (const until of [4, 7.5, Infinity]) {
        const held = pool.noiseWithout(all.slice(3, 4), until, [study])
        const anew = learnNoise([...all.slice(0, 3), ...all.slice(4), study], until)
        expect(held.learntFrom).toEqual(anew.learntFrom)
        held.models.forEach(({ a, b, weight }, m) => {
          const other = (anew.models[m]?.b ?? NaN) / (anew.models[m]?.a ?? NaN)
          expect(Math.abs(b / a / other - 1)).toBeLessThan(within)
          expect(Math.abs(weight - (anew.models[m]?.weight ?? NaN))).toBeLessThan(0.03)
        })
      }
    }
  })
})

describe('the noise learnt in a studio of many days of visits', () => {
  it('is that known at the last of every four weeks', () => {
    const all = historiesOf(same(70, 6)).map((one, i) => ({ ...one, weeks: one.weeks.map((week) => week + i / 700) }))
    const pool = new EvidencePool(all)
    const at = (until: number) => pool.noiseWithout(all.slice(0, 1), until).learntFrom
    expect(at(6.5)).toEqual(learnNoise(all.slice(1), 4).learntFrom)
    expect(at(7.95)).toEqual(at(6.5))
    expect(at(8).visits).toBeGreaterThan(at(7.95).visits)
    // Of one whose days are few, each counts.
    const few = new EvidencePool(historiesOf(same(70, 6)))
    expect(few.noiseWithout([], 6.5).learntFrom).toEqual(few.noiseWithout([], 6).learntFrom)
    expect(few.noiseWithout([], 6).learntFrom.visits).toBe(70 * 7)
  })
})

describe('the 95 % interval, where some change in every way held likely', () => {
  it('holds their change about that often, and of the others no change more often though it is narrower than two ends alone', () => {
    const [fortnightly, fourWeekly] = [
      // Where a day moves all folds together, which is learnt.
      drawnIntervals(240, { weeksApart: 2, looks: 13 }, { world: { ...ASSUMED_WORLD, dayShare: 0.075 } }),
      drawnIntervals(240, { weeksApart: 4, looks: 12 }),
    ]
    // Thirty clients a cadence, whose looks hang together as if each were looked at three times.
    const error = 2 * Math.sqrt((0.05 * 0.95) / (2 * 30 * 3))
    const changing = (fortnightly.changing + fourWeekly.changing) / 2
    expect(Math.abs(changing - 0.95)).toBeLessThan(0.02 + error)
    for (const { unchanged, width } of [fortnightly, fourWeekly]) {
      expect(unchanged).toBeGreaterThan(0.95)
      expect(width).toBeLessThan(0.9)
    }
  }, 60_000)
})
