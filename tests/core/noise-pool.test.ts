import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { Speaker, type Evidence } from '../../core/following/evidence'
import { clientEvidence, StudioNoise, type ClientEvidence } from '../../core/following/learning'
import { meanOver, NOISE_TYPES, thinned, type Noise } from '../../core/following/noise'
import { HandPool, noiseFromOthers } from '../../core/following/noise-pool'
import { oddsOf } from '../../core/following/odds'
import { ASSUMED_NOISE, noiseGiven } from '../../core/following/studio-grid'
import { seededRandom } from '../../core/simulate'
import { measure } from '../../core/trials/trial'

/**
 * What the prototype of following.md, second edition (numpy and scipy, shared research folder), gives for three invented
 * clients: odds after every visit with nothing learnt, odds of the first with the noise learnt from the other two at ten
 * clients' worth at most, and the heaviest cells of that noise.
 */
const prototype = JSON.parse(readFileSync(new URL('../support/noise-mixture.json', import.meta.url), 'utf8')) as {
  weeks: number[]
  values: number[][]
  assumed: number[][]
  learnt: number[]
  heaviest: [cell: number, weight: number][]
}
const seriesOf = (client: number) => ({
  weeks: prototype.weeks,
  values: prototype.values[client] ?? [],
  variances: prototype.weeks.map(() => 1),
})
const evidenceOf = (client: number): Evidence => ({ ...seriesOf(client), assessorId: null })
const counted = { clients: 2, visits: 20, followed: 2 }

describe('beside the prototype', () => {
  it('the odds with nothing learnt are the same to half a percent', () => {
    prototype.assumed.forEach((odds, client) => {
      const found = oddsOf(seriesOf(client), ASSUMED_NOISE, { running: () => ASSUMED_NOISE })
      odds.forEach((one, i) => expect(Math.abs((found?.running[i + 1] ?? 0) / one - 1)).toBeLessThan(0.005))
    })
  })

  it('so are the noise learnt from two others, and the odds under it', () => {
    const [a, b] = [1, 2].map((client) => new Speaker(evidenceOf(client)).after(10)) as [Float64Array, Float64Array]
    const noise = noiseGiven(
      a.map((one, h) => one + (b[h] as number)),
      counted,
    )
    const weightOf = (cell: number) => noise.weights[noise.cells.indexOf(cell)] ?? 0
    for (const [cell, weight] of prototype.heaviest) expect(weightOf(cell)).toBeCloseTo(weight, 3)
    const found = oddsOf(seriesOf(0), noise, { running: () => noise })
    prototype.learnt.forEach((one, i) => expect(Math.abs((found?.running[i + 1] ?? 0) / one - 1)).toBeLessThan(0.005))
  })
})

/** Clients on a sum of 90 with a visit sd of 6 assumed, each with a steady course of their own; the true sd of each. */
function historiesOf(sds: readonly number[], { visits = 14, lasting = 0 } = {}, seed = 11): Evidence[] {
  const random = seededRandom(seed)
  return sds.map((sd) => {
    const weeks = Array.from({ length: visits }, (_, i) => i)
    const slope = random.normal()
    let stays = random.normal()
    const values = weeks.map((week) => {
      stays = lasting * stays + Math.sqrt(1 - lasting ** 2) * random.normal()
      return 90 + slope * week + sd * (lasting > 0 ? stays : random.normal())
    })
    return { weeks, values, variances: weeks.map(() => 36), assessorId: null }
  })
}
const same = (count: number, sd: number) => Array.from({ length: count }, () => sd)
const learnt = (all: readonly Evidence[], until = Infinity): Noise =>
  noiseFromOthers([new HandPool(all.map((one) => new Speaker(one))).without([], until)], [], [], counted)
const scale = (noise: Noise) => Math.exp(meanOver(noise, (_, one) => Math.log(one)))
const shareOf = (noise: Noise, holds: (rho: number) => boolean) => meanOver(noise, ({ rho }) => Number(holds(rho)))

describe('the noise learnt from others', () => {
  it('stays as assumed without others, and before their fourth check-in', () => {
    expect(learnt([])).toBe(ASSUMED_NOISE)
    const others = historiesOf(same(20, 12))
    expect(learnt(others, 2)).toBe(ASSUMED_NOISE)
    expect(learnt(others, 3)).not.toBe(ASSUMED_NOISE)
  })

  it('finds how wide it is, whatever the courses', () => {
    expect(scale(learnt(historiesOf(same(40, 12))))).toBeGreaterThan(2.8)
    expect(scale(learnt(historiesOf(same(40, 3))))).toBeLessThan(0.4)
    expect(scale(learnt(historiesOf(same(40, 6))))).toBeCloseTo(1, 0)
  })

  it('finds whether it lasts', () => {
    const [fresh, stays] = [historiesOf(same(40, 6)), historiesOf(same(40, 6), { lasting: 0.7 })].map((one) =>
      learnt(one),
    )
    expect(shareOf(fresh as Noise, (rho) => rho > 0)).toBeLessThan(0.3)
    expect(shareOf(stays as Noise, (rho) => rho > 0.3 && rho < 0.9)).toBeGreaterThan(0.5)
    // No type is ever ruled out.
    for (const type of NOISE_TYPES) expect(shareOf(fresh as Noise, (rho) => rho === type.rho)).toBeGreaterThan(0)
  })

  it('finds how alike people are', () => {
    const differing = Array.from({ length: 60 }, (_, i) => (i % 4 === 0 ? 15 : 5))
    const freedom = (noise: Noise) => meanOver(noise, (_, __, nu) => nu)
    expect(freedom(learnt(historiesOf(differing)))).toBeLessThan(freedom(learnt(historiesOf(same(60, 6)))) / 2)
  })

  it('leaves the client’s own history out, and learns slowly from many', () => {
    const all = historiesOf([30, ...same(12, 6)]).map((one) => new Speaker(one))
    const pool = new HandPool(all)
    const [others, everybody] = [pool.without(all.slice(0, 1), Infinity), pool.without([], Infinity)]
    expect([others.histories, everybody.histories]).toEqual([12, 13])
    const anew = new HandPool(all.slice(1)).without([], Infinity)
    others.support.forEach((one, h) => expect(one).toBeCloseTo(anew.support[h] as number, 6))
    // Forty clients' worth at most: of eighty the half counts.
    const [few, many] = [40, 80].map((count) => learnt(historiesOf(same(count, 6))))
    const spread = (noise: Noise) => meanOver(noise, (_, one) => (Math.log(one) - Math.log(scale(noise))) ** 2)
    expect(spread(many as Noise)).toBeGreaterThan(0.6 * spread(few as Noise))
  })

  it('knows in a studio of many days what was known at the end of every fourth week', () => {
    const all = historiesOf(same(70, 6)).map((one, i) => ({ ...one, weeks: one.weeks.map((week) => week + i / 70) }))
    const pool = new HandPool(all.map((one) => new Speaker(one)))
    expect(pool.without([], 7.9).histories).toBe(pool.without([], 4).histories)
    expect(pool.without([], 8).histories).toBe(70)
  })

  it('is thinned to the same answers', () => {
    const noise = learnt(historiesOf(same(40, 6)))
    const thin = thinned(noise)
    expect(thin.cells.length).toBeLessThan(noise.cells.length)
    expect(Math.abs(scale(thin) / scale(noise) - 1)).toBeLessThan(0.02)
  })
})

describe('by hand', () => {
  const handed = (id: string | null) => ({ hand: () => ({ id, factors: {} }) })

  it('a history is cut at a change of hand, each part credited to its own', () => {
    const [own = []] = measure({
      clients: 1,
      looks: 12,
      client: () => ({ hand: (place) => ({ id: place < 5 ? 'runa' : 'ivo', factors: {} }) }),
    })
    const { families, taken } = clientEvidence(own, { families: ['sum', 'weight'] })
    expect(families.sum?.map(({ assessorId, weeks }) => [assessorId, weeks.length])).toEqual([
      ['runa', 5],
      ['ivo', 7],
    ])
    // A scale weighs alike whoever reads it.
    expect(families.weight?.map(({ weeks }) => weeks.length)).toEqual([12])
    expect(taken.map(({ assessorId }) => assessorId).slice(3, 7)).toEqual(['runa', 'runa', 'ivo', 'ivo'])
    // Three by a hand say nothing of it.
    const [few = []] = measure({
      clients: 1,
      looks: 6,
      client: () => ({ hand: (place) => ({ id: place < 3 ? 'runa' : 'ivo', factors: {} }) }),
    })
    expect(clientEvidence(few, { families: ['sum'] }).families).toEqual({})
  })

  it('the clients of a bad hand are judged by it, before its look and never by what came later', () => {
    const ends = measure({
      clients: 40,
      looks: 14,
      client: (place) => ({ ...handed(place % 2 ? 'runa' : 'ivo'), ...(place % 2 ? {} : { noise: 2.5 }) }),
    })
    const all = new Map(
      ends.map((own, c): [string, ClientEvidence] => [String(c), clientEvidence(own, { families: ['sum'] })]),
    )
    const studio = new StudioNoise(all)
    const [bad, good] = ['0', '1'].map((id) => studio.for(id, undefined, ['sum']).sum) as [Noise, Noise]
    expect(scale(bad)).toBeGreaterThan(2 * scale(good))
    expect(good.learntFrom).toMatchObject({ clients: 39, followed: 39 })
    // On the day of the third check-in nobody has four.
    const day = ends[0]?.[2]?.facts.startedAt.slice(0, 10)
    expect(studio.for('1', day, ['sum']).sum).toBe(ASSUMED_NOISE)
    // Whoever hands a client over later changes nothing about looks before.
    const before = studio.for('1', ends[0]?.[9]?.facts.startedAt.slice(0, 10), ['sum']).sum
    const later = new Map(all)
    const [first] = [all.get('1') as ClientEvidence]
    later.set('1', { ...first, taken: first.taken.map((one, i) => (i > 9 ? { ...one, assessorId: 'ivo' } : one)) })
    expect(new StudioNoise(later).for('1', ends[0]?.[9]?.facts.startedAt.slice(0, 10), ['sum']).sum).toEqual(before)
  })
})
