import type { SpanEnd } from '../composition/end-figures'
import { ASSUMED_ERRORS, markOf, readingVariance, type ErrorModel } from '../error/model'
import type { SiteId } from '../sites'

/** Assessors whose second readings repeat the first more often than chance does. '' stands for an assessor not noted. */
export type Copying = ReadonlySet<string>

/** Pairs of an assessor: how many, how many alike to the mark, and how many chance alone makes alike. */
export interface RepeatCount {
  pairs: number
  equal: number
  expected: number
  /** Sum of p (1 - p): the variance of the count. */
  variance: number
}

/** Beyond this many standard deviations over chance, and beyond this share, equal pairs are copies. */
const BEYOND = 3
const FEWEST_PAIRS = 12

/** Chance that two readings of a site fall on the same mark: mark / (2 sigma sqrt(pi)). */
function chanceOf(sigma: number, mark: number): number {
  return Math.min(1, mark / (2 * sigma * Math.sqrt(Math.PI)))
}

/** What each check-in says about copying; asked for again at every look. */
const knownCounts = new WeakMap<SpanEnd['result'], { model: ErrorModel; count: RepeatCount }>()

function countOf({ result }: SpanEnd, model: ErrorModel): RepeatCount {
  const before = knownCounts.get(result)
  if (before?.model === model) return before.count
  const count = { pairs: 0, equal: 0, expected: 0, variance: 0 }
  for (const { site, live } of result.session.sites) {
    const [first, second] = live
    if (!first || !second) continue
    const mark = markOf(site)
    const p = chanceOf(Math.sqrt(readingVariance(site, first.value, 0, model)), mark)
    count.pairs += 1
    count.expected += p
    count.variance += p * (1 - p)
    if (first.unit === second.unit && Math.abs(first.value - second.value) < mark / 2) count.equal += 1
  }
  knownCounts.set(result, { model, count })
  return count
}

/** Second readings held against first ones, by assessor. */
export function repeatCounts(
  ends: readonly SpanEnd[],
  model: ErrorModel = ASSUMED_ERRORS,
): ReadonlyMap<string, RepeatCount> {
  const counts = new Map<string, RepeatCount>()
  for (const end of ends) {
    const assessor = end.facts.assessorId ?? ''
    const own = counts.get(assessor) ?? { pairs: 0, equal: 0, expected: 0, variance: 0 }
    const { pairs, equal, expected, variance } = countOf(end, model)
    counts.set(assessor, {
      pairs: own.pairs + pairs,
      equal: own.equal + equal,
      expected: own.expected + expected,
      variance: own.variance + variance,
    })
  }
  return counts
}

/** True where equal pairs are more than chance gives (normal to the binomial, one-sided beyond three deviations). */
export function isCopying({ pairs, equal, expected, variance }: RepeatCount): boolean {
  return pairs >= FEWEST_PAIRS && equal - expected > BEYOND * Math.sqrt(variance)
}

/** Assessors of these visits whose repeats are copies. */
export function copyingIn(ends: readonly SpanEnd[], model?: ErrorModel): Copying {
  return new Set([...repeatCounts(ends, model)].filter(([, count]) => isCopying(count)).map(([assessor]) => assessor))
}

/** Readings of a check-in's sites as they stand, and with equal pairs counted once; asked for again and again. */
const counted = new WeakMap<SpanEnd['result'], ReadonlyMap<string, { all: number; once: number }>>()

function countsOf(result: SpanEnd['result']) {
  const before = counted.get(result)
  if (before) return before
  const counts = new Map(
    result.session.sites.map(({ site, live }) => {
      const [first, second] = live
      const copied = first && second && Math.abs(first.value - second.value) < markOf(site) / 2
      const all = Math.max(1, live.length)
      return [site as string, { all, once: Math.max(1, all - (copied ? 1 : 0)) }]
    }),
  )
  counted.set(result, counts)
  return counts
}

/** Readings a site's value stands on: of an assessor who copies, an equal pair counts once. */
export function countedReadings({ facts, result }: SpanEnd, site: SiteId, copying?: Copying): number {
  const own = countsOf(result).get(site)
  if (!own) return 1
  return copying && copying.size > 0 && copying.has(facts.assessorId ?? '') ? own.once : own.all
}
