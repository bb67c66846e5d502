import type { KnownHand } from '../error/hands'
import { shrunkHand } from '../error/hands'
import { ASSUMED_ERRORS, markOf, readingVariance, siteVisitVariance, type ErrorModel } from '../error/model'
import { isFold, type SiteId } from '../sites'
import { ratioBias } from './agreement'
import { leastError, peopleCounted, type StudyFacts, type StudyTurn } from './study'

/** Fewest people whose turns are complete from which a study says anything to the error model (our choice). */
export const ENOUGH_TO_FEED = 5

/** What a side-by-side study says about each two of its pens, by site. */
export function knownHands(facts: StudyFacts, source: { studyId: string; day: string }): KnownHand[] {
  if (facts.kind === 'repeat') return []
  const people = peopleCounted(facts)
  if (people.length < ENOUGH_TO_FEED) return []
  const of = facts.kind === 'assessors' ? ('assessor' as const) : ('caliper' as const)
  return facts.penIds.flatMap((from, i) =>
    facts.penIds.slice(i + 1).map((to): KnownHand => {
      const sites: KnownHand['sites'] = {}
      for (const site of facts.sites) {
        const pairs = people.flatMap((turns) => {
          const [a, b] = [from, to].map((pen) => turns.find(({ penId }) => penId === pen)?.values[site])
          return a !== undefined && b !== undefined ? [[a, b] as const] : []
        })
        const bias = pairs.length < ENOUGH_TO_FEED ? null : ratioBias(pairs)
        if (!bias) continue
        const mean = pairs.reduce((sum, [a, b]) => sum + (a + b) / 2, 0) / pairs.length
        // Few people: a t distribution's variance, and never less than the marks allow.
        const variance = (bias.se ** 2 * bias.freedom) / (bias.freedom - 2)
        sites[site] = shrunkHand(bias.log, Math.max(variance, leastError(site, mean, pairs.length) ** 2))
      }
      return { of, from, to, sites, people: people.length, ...source }
    }),
  )
}

/** What a repeat study says about one figure's error: squares in units of the variance assumed, on degrees of freedom. */
export interface ScaleSaid {
  figure: 'sum' | 'fold' | 'girth'
  freedom: number
  squares: number
}

function assumedVariance(site: SiteId, value: number, readings: number, model: ErrorModel): number {
  return siteVisitVariance(readingVariance(site, value, markOf(site), model), readings, model)
}

/** One difference's square against the assumed variance of a visit; the day, which a study of one day cannot see, stays assumed. */
function ratioOf(difference: number, measured: number, day: number): number {
  return (difference ** 2 / 2 + day) / (measured + day)
}

interface Pair {
  site: SiteId
  difference: number
  mean: number
  measured: number
}

function pairsOf(turns: readonly StudyTurn[], sites: readonly SiteId[], model: ErrorModel): Pair[] {
  const [first, second] = [1, 2].map((trial) => turns.find((turn) => turn.trial === trial))
  return sites.flatMap((site) => {
    const [a, b] = [first?.values[site], second?.values[site]]
    if (a === undefined || b === undefined) return []
    const mean = (a + b) / 2
    const readings = first?.readings[site]?.length ?? 1
    return [{ site, difference: b - a, mean, measured: assumedVariance(site, mean, readings, model) }]
  })
}

/**
 * What a repeat study says about the scale of an assessor's error, by family of figures. Marks and readings are seen in
 * it; the day's part stays as assumed.
 */
export function scaleSaid(facts: StudyFacts, model: ErrorModel = ASSUMED_ERRORS): ScaleSaid[] {
  if (facts.kind !== 'repeat') return []
  const people = peopleCounted(facts)
  if (people.length < ENOUGH_TO_FEED) return []
  const said: Record<ScaleSaid['figure'], ScaleSaid> = {
    sum: { figure: 'sum', freedom: 0, squares: 0 },
    fold: { figure: 'fold', freedom: 0, squares: 0 },
    girth: { figure: 'girth', freedom: 0, squares: 0 },
  }
  const add = (to: ScaleSaid, ratio: number) => {
    to.freedom += 1
    to.squares += ratio
  }
  for (const turns of people) {
    const pairs = pairsOf(turns, facts.sites, model)
    for (const { site, difference, mean, measured } of pairs) {
      const day = isFold(site) ? (model.dayShare * mean) ** 2 : 0
      add(said[isFold(site) ? 'fold' : 'girth'], ratioOf(difference, measured, day))
    }
    const folds = pairs.filter(({ site }) => isFold(site))
    if (folds.length < 2) continue
    const total = (pick: (pair: Pair) => number) => folds.reduce((sum, pair) => sum + pick(pair), 0)
    const day = (model.dayShare * total(({ mean }) => mean)) ** 2
    add(
      said.sum,
      ratioOf(
        total((pair) => pair.difference),
        total(({ measured }) => measured),
        day,
      ),
    )
  }
  return Object.values(said).filter(({ freedom }) => freedom > 0)
}
