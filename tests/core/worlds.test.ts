import { describe, expect, it } from 'vitest'
import { composeWith } from '../../core/composition/checkin'
import { ASSUMED_ERRORS } from '../../core/error/model'
import { figureOver, figureTerms } from '../../core/following/figures'
import { ASSUMED_NOISE, evidenceOf, learnNoise } from '../../core/following/noise'
import { judge } from '../../core/following/verdict'
import { oddsOf, type OddsSeries } from '../../core/following/odds'
import { PROTOCOLS } from '../../core/protocols'
import { seededRandom } from '../../core/simulate'
import { ASSUMED_WORLD, simulateWorld, type MeasuringWorld } from '../../core/simulate/world'
import type { SiteId } from '../../core/sites'

/*
 * The promise tried in worlds that break the assumptions: folds read through the schools' rules with a half-millimetre
 * caliper, composed, followed and judged by the functions the product uses. Limits: the table of trials of following.md
 * with room for a hundred clients in place of three hundred.
 */
const SEVEN = PROTOCOLS['laboratory-7']
const FOLDS: Partial<Record<SiteId, number>> = {
  triceps: 20,
  subscapular: 14,
  chest: 9,
  midaxillary: 11,
  suprailiac: 15,
  abdominal: 20,
  thigh: 29,
}
const person = { sex: 'female' as const, birthDate: '1990-01-01', heightCm: 170 }

interface Trial {
  world: MeasuringWorld
  clients?: number
  looks?: number
  weeksApart?: number
  size?: number
  course?: (week: number) => number
  learnt?: boolean
}

function cut(series: OddsSeries, count: number): OddsSeries {
  const { weeks, values, variances, hands = [], offsetVariance = 0 } = series
  return {
    weeks: weeks.slice(0, count),
    values: values.slice(0, count),
    variances: variances.slice(0, count),
    hands: hands.slice(0, count),
    offsetVariance,
  }
}

/** The look at which each client is first told real by the sum; null: never. */
function firstReal({ world, clients = 100, looks = 13, weeksApart = 1, size = 1, course, learnt = true }: Trial) {
  const random = seededRandom(7)
  const all = Array.from({ length: clients }, () => {
    const own = size * Math.exp(0.25 * random.normal())
    const foldsMm = Object.fromEntries(
      Object.entries(FOLDS).map(([site, mm]) => [site, Math.max(3, mm * own * Math.exp(0.15 * random.normal()))]),
    )
    const weeks = Array.from({ length: looks }, (_, i) => i * weeksApart)
    const client = { protocol: SEVEN, foldsMm, weeks, ...(course ? { course } : {}) }
    const ends = simulateWorld(random, world, client, new Date('2026-01-05T17:00:00Z')).map(
      ({ startedAt, readings }) => {
        const facts = { person, protocol: SEVEN, startedAt, readings, strikes: [] }
        return { facts, result: composeWith([], facts) }
      },
    )
    const now = ends.at(-1)
    if (!now) throw new Error('no visits')
    const settings = { model: ASSUMED_ERRORS }
    const terms = figureTerms(ends, now)
    const over = (summed: readonly SiteId[]) => figureOver('sum', ends, terms, { ...settings, summed })?.series
    const without = SEVEN.sites.flatMap((site) => {
      const series = over(SEVEN.sites.filter((other) => other !== site))
      return series ? [{ site, series }] : []
    })
    const series = over(SEVEN.sites)
    if (!series) throw new Error('no series')
    return { series, without }
  })
  const evidence = all.map(({ series }) => evidenceOf(series))
  return all.map(({ series, without }, c) => {
    const others = evidence.filter((_, k) => k !== c)
    for (let count = 2; count <= looks; count += 1) {
      const noise = learnt ? learnNoise(others, series.weeks[count - 1]) : ASSUMED_NOISE
      const seen = cut(series, count)
      if ((oddsOf(seen, noise)?.odds ?? 0) < 20) continue
      const found = judge(seen, {
        noise,
        without: () => without.map((one) => ({ ...one, series: cut(one.series, count) })),
      })
      if (found?.verdict === 'real') return count
    }
    return null
  })
}

const share = (looks: (number | null)[]) => looks.filter((look) => look !== null).length / looks.length

describe('of clients who do not change', () => {
  it.each<[string, Trial, number]>([
    ['as assumed', { world: ASSUMED_WORLD }, 0.03],
    ['marks twice as bad, a day effect of 5 %', { world: { ...ASSUMED_WORLD, markFactor: 3, dayShare: 0.05 } }, 0.03],
    ['a clumsy assessor', { world: { ...ASSUMED_WORLD, share: 0.09, markMm: 1 } }, 0.03],
    ['lean people', { world: ASSUMED_WORLD, size: 0.45 }, 0.03],
    ['four of five repeats copied', { world: { ...ASSUMED_WORLD, copied: 0.8 } }, 0.03],
    ['a day effect that lasts', { world: { ...ASSUMED_WORLD, dayShare: 0.05, dayCorrelation: 0.6 } }, 0.05],
    ['one fold wrong in 2 % of visits', { world: { ...ASSUMED_WORLD, blunders: { share: 0.02, mm: 24 } } }, 0.03],
    ['studios of eight', { world: ASSUMED_WORLD, clients: 8, looks: 24 }, 0.13],
  ])(
    'at most one in twenty is ever told real: %s',
    (_, trial, most) => {
      expect(share(firstReal(trial))).toBeLessThanOrEqual(most)
    },
    60_000,
  )
})

describe('of clients who lose steadily', () => {
  it('most are told within the year, at weekly visits', () => {
    // Fat of about 0.2 kg a week is nearly one per cent of the folds.
    const looks = firstReal({ world: ASSUMED_WORLD, clients: 40, looks: 26, course: (week) => 1 - 0.009 * week })
    expect(share(looks)).toBeGreaterThan(0.9)
  }, 60_000)

  it('a larger loss is told at the third or fourth four-weekly visit', () => {
    const looks = firstReal({
      world: ASSUMED_WORLD,
      clients: 40,
      looks: 6,
      weeksApart: 4,
      course: (week) => 1 - 0.022 * week,
    })
    const told = looks.flatMap((look) => look ?? [])
    expect(share(looks)).toBeGreaterThan(0.9)
    told.sort((a, b) => a - b)
    expect(told[Math.floor(told.length / 2)]).toBeLessThanOrEqual(4)
  }, 60_000)
})
