import type { SiteId } from '../sites'
import { ASSUMED_ERRORS } from './model'

/** A bias by ratio as far as it is known: mean and variance of its logarithm. */
export interface KnownBias {
  log: number
  variance: number
}

/** What a side-by-side study says about two assessors or two calipers: how `to` reads against `from`, by site. */
export interface KnownHand {
  of: 'assessor' | 'caliper'
  from: string
  to: string
  sites: Partial<Record<SiteId, KnownBias>>
  people: number
  studyId: string
  /** The day it was closed. */
  day: string
}

/** Who measured with what. */
export interface Hand {
  assessorId: string | null
  caliperId: string | null
}

/**
 * A bias a study found, shrunk to none by what is assumed of hands before one: a study of few people says little.
 * @param log mean of the logarithm of the ratio
 * @param variance of that mean
 * @param handShare spread of hands as assumed
 * @example shrunkHand(0.08, 0.05 ** 2) // { log: 0.04, variance: 0.00125 }
 */
export function shrunkHand(log: number, variance: number, handShare = ASSUMED_ERRORS.handShare): KnownBias {
  const kept = handShare ** 2 / (handShare ** 2 + variance)
  return { log: log * kept, variance: variance * kept }
}

/** The newest study that held two hands against each other; null: none. */
export function studyBetween(known: readonly KnownHand[], of: KnownHand['of'], one: string, other: string) {
  const pair = [one, other]
  return known.findLast((hand) => hand.of === of && pair.includes(hand.from) && pair.includes(hand.to)) ?? null
}

function biasBetween(known: readonly KnownHand[], of: KnownHand['of'], from: string, to: string, site: SiteId) {
  // The newest study of the two speaks.
  for (let i = known.length - 1; i >= 0; i -= 1) {
    const one = known[i] as KnownHand
    const bias = one.of === of ? one.sites[site] : undefined
    if (!bias) continue
    if (one.from === from && one.to === to) return bias
    if (one.from === to && one.to === from) return { log: -bias.log, variance: bias.variance }
  }
  return null
}

/**
 * How another hand reads a site against a first one: from studies where there are some, else nothing is known but that
 * hands differ by some 5 %.
 * @param known studies' results, oldest first
 */
export function handBias(
  known: readonly KnownHand[],
  from: Hand,
  to: Hand,
  site: SiteId,
  handShare = ASSUMED_ERRORS.handShare,
): KnownBias & { known: boolean } {
  const parts = [
    { of: 'assessor' as const, a: from.assessorId, b: to.assessorId },
    { of: 'caliper' as const, a: from.caliperId, b: to.caliperId },
  ].filter(({ a, b }) => a !== b)
  const found = parts.map(({ of, a, b }) => (a && b ? biasBetween(known, of, a, b, site) : null))
  if (found.length === 0) return { log: 0, variance: 0, known: true }
  if (found.some((bias) => bias === null)) {
    // One unknown is as wide as both: the assumption is about a pair.
    const log = found.reduce((sum, bias) => sum + (bias?.log ?? 0), 0)
    return { log, variance: handShare ** 2, known: false }
  }
  const [log, variance] = found.reduce<[number, number]>(
    ([a, b], bias) => [a + (bias?.log ?? 0), b + (bias?.variance ?? 0)],
    [0, 0],
  )
  return { log, variance, known: true }
}
