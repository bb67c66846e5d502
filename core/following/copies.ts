import type { SpanEnd } from '../composition/end-figures'
import { ASSUMED_ERRORS, markOf, type ErrorModel } from '../error/model'
import { isFold, type SiteId } from '../sites'
import { valueOf } from '../readings'
import { normalCdf } from '../trend/student'

/*
 * Second readings that repeat the first more often than chance. How often chance does it hangs on the caliper's marks and on
 * the assessor's own error: a skilled hand with whole millimetres repeats itself honestly. So the error is learnt from the
 * pairs that differ and those that agree together, once as if all were honest and once as if some were copied.
 */

/** Assessors whose second readings repeat the first more often than chance does. '' stands for an assessor not noted. */
export type Copying = ReadonlySet<string>

/** First and second readings of one site at one visit. */
export interface RepeatPair {
  /** How far apart they are, in marks of what they were read with: 0 where they agree. */
  apart: number
  /** Distance of the marks, and the mean of the two, in the site's unit. */
  mark: number
  mean: number
  isFold: boolean
}

/** Fewest pairs anything is said of, and fewest that agree. */
const FEWEST_PAIRS = 12
/**
 * Twice the gain in log likelihood that some were copied, from which it is said: one honest assessor in some thousand, because
 * it is looked at again and again.
 */
const BEYOND = 12
/** Shares of an error an assessor may have, of the value: from a third of a percent to an eighth. */
const SHARES = Array.from({ length: 22 }, (_, k) => 0.003 * 1.2 ** k)
/** Shares of second readings that may be copied. */
const COPIED = Array.from({ length: 19 }, (_, k) => (k + 1) / 20)
/** Pairs further apart than this say no more than those as far. */
const MOST_APART = 6

/** The normal distribution's integral. */
function integral(x: number): number {
  return x * normalCdf(x) + Math.exp(-0.5 * x * x) / Math.sqrt(2 * Math.PI)
}

/**
 * Chance that two readings, each rounded to its mark, lie so many marks apart, either way.
 * @param spread standard deviation of the difference of the two, in marks
 */
export function chanceApart(apart: number, spread: number): number {
  // The rounded difference of two is the difference convolved with a triangle of one mark either side.
  const at = (k: number) =>
    spread * (integral((k + 1) / spread) - 2 * integral(k / spread) + integral((k - 1) / spread))
  return Math.max(1e-12, (apart === 0 ? 1 : 2) * at(apart))
}

/** Marks a caliper may have, mm, the widest first. */
const MARKS = [1, 0.5, 0.2] as const
const FINEST = 0.1
/** Sums of tenths are not exact. */
const HAIR = 1e-6

/** Marks that folds were read with, where nobody noted the caliper: the widest that all readings lie on. */
function marksOf(values: readonly number[]): number {
  const onMarks = (mark: number) => values.every((value) => Math.abs(value / mark - Math.round(value / mark)) < HAIR)
  return MARKS.find(onMarks) ?? FINEST
}

interface RawPair {
  site: SiteId
  first: number
  second: number
  /** The caliper's mark, mm; undefined: not noted, or a girth. */
  mark: number | undefined
}

/** First and second readings of each check-in; asked for again at every look. */
const knownPairs = new WeakMap<SpanEnd['result'], RawPair[]>()

function pairsAt({ facts, result }: SpanEnd): RawPair[] {
  const before = knownPairs.get(result)
  if (before) return before
  const pairs = result.session.sites.flatMap(({ site, live }): RawPair[] => {
    const [first, second] = live
    if (!first || !second || first.unit !== second.unit) return []
    const mark = isFold(site) ? facts.policies?.markMm : undefined
    return [{ site, first: valueOf(first), second: valueOf(second), mark }]
  })
  knownPairs.set(result, pairs)
  return pairs
}

/** Second readings against first ones, by assessor. */
export function repeatPairs(ends: readonly SpanEnd[]): ReadonlyMap<string, RepeatPair[]> {
  const raw = new Map<string, RawPair[]>()
  for (const end of ends) {
    const assessor = end.facts.assessorId ?? ''
    const own = raw.get(assessor)
    if (own) own.push(...pairsAt(end))
    else raw.set(assessor, [...pairsAt(end)])
  }
  return new Map([...raw].map(([assessor, pairs]) => [assessor, inMarks(pairs)]))
}

function inMarks(pairs: readonly RawPair[]): RepeatPair[] {
  const unknown = pairs.filter(({ site, mark }) => isFold(site) && mark === undefined)
  const read = marksOf(unknown.flatMap(({ first, second }) => [first, second]))
  return pairs.map(({ site, first, second, mark }) => {
    const own = isFold(site) ? (mark ?? read) : markOf(site)
    const apart = Math.min(MOST_APART, Math.round(Math.abs(first - second) / own))
    return { apart, mark: own, mean: (first + second) / 2, isFold: isFold(site) }
  })
}

/** Log likelihoods of an assessor's pairs: all honest, and some copied; each with the error that suits it best. */
function likeliest(pairs: readonly RepeatPair[], model: ErrorModel): { honest: number; copied: number } {
  const best = { honest: -Infinity, copied: -Infinity }
  // Pairs of one chance are counted together: by how wide the marks are for the error, in steps of five percent.
  for (const share of SHARES) {
    const groups = new Map<string, { chance: number; apart: number; count: number }>()
    for (const { apart, mark, mean, isFold: fold } of pairs) {
      // Girths are read about a fifth as badly as folds, and both have a floor of their own (half the assumed one).
      const { floor } = fold ? model.folds : model.girths
      const own = Math.hypot(floor / 2, (fold ? share : share / 5) * mean)
      const spread = Math.round(20 * Math.log(Math.max(0.05, (Math.SQRT2 * own) / mark)))
      const key = `${spread} ${apart}`
      const group = groups.get(key)
      if (group) group.count += 1
      else groups.set(key, { chance: chanceApart(apart, Math.exp(spread / 20)), apart, count: 1 })
    }
    const all = [...groups.values()]
    const log = (copied: number) =>
      all.reduce(
        (sum, { chance, apart, count }) => sum + count * Math.log((1 - copied) * chance + (apart === 0 ? copied : 0)),
        0,
      )
    best.honest = Math.max(best.honest, log(0))
    for (const copied of COPIED) best.copied = Math.max(best.copied, log(copied))
  }
  return best
}

/** True where second readings agree more often than the assessor's own error and the marks explain. */
export function isCopying(pairs: readonly RepeatPair[], model: ErrorModel = ASSUMED_ERRORS): boolean {
  const agree = pairs.filter(({ apart }) => apart === 0).length
  if (pairs.length < FEWEST_PAIRS || agree < FEWEST_PAIRS / 2) return false
  const { honest, copied } = likeliest(pairs, model)
  return 2 * (copied - honest) > BEYOND
}

/** Answers by assessor, pairs and how many agree: the same span is asked about for every figure. */
const answers = new WeakMap<SpanEnd['result'], Map<string, boolean>>()

/** Assessors of these visits whose repeats are copies. */
export function copyingIn(ends: readonly SpanEnd[], model: ErrorModel = ASSUMED_ERRORS): Copying {
  const copying = new Set<string>()
  const newest = ends.at(-1)
  if (!newest) return copying
  for (const [assessor, pairs] of repeatPairs(ends)) {
    // Where fewer than one in four agree nobody copies enough to matter.
    const agree = pairs.filter(({ apart }) => apart === 0).length
    if (pairs.length < FEWEST_PAIRS || agree < pairs.length / 4) continue
    const known = answers.get(newest.result) ?? new Map<string, boolean>()
    answers.set(newest.result, known)
    const key = `${assessor} ${pairs.length} ${agree}`
    const answer = known.get(key) ?? isCopying(pairs, model)
    known.set(key, answer)
    if (answer) copying.add(assessor)
  }
  return copying
}

/** Readings of a check-in's sites as they stand, and with equal pairs counted once; asked for again and again. */
const counted = new WeakMap<SpanEnd['result'], ReadonlyMap<string, { all: number; once: number }>>()

function countsOf({ result }: SpanEnd) {
  const before = counted.get(result)
  if (before) return before
  const counts = new Map(
    result.session.sites.map(({ site, live }) => {
      const [first, second] = live
      const copied = first && second && Math.abs(first.value - second.value) < HAIR
      const all = Math.max(1, live.length)
      return [site as string, { all, once: Math.max(1, all - (copied ? 1 : 0)) }]
    }),
  )
  counted.set(result, counts)
  return counts
}

/** Readings a site's value stands on: of an assessor who copies, an equal pair counts once. */
export function countedReadings(end: SpanEnd, site: SiteId, copying?: Copying): number {
  const own = countsOf(end).get(site)
  if (!own) return 1
  return copying && copying.size > 0 && copying.has(end.facts.assessorId ?? '') ? own.once : own.all
}
