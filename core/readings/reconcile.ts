import type { Agreement, Policy } from './policies'

/**
 * What the repeats of one site come to.
 * - empty: nothing read; partial: fewer readings than the policy wants
 * - disputed: they do not agree and the policy allows another
 * - agreed: they agree; unsteady: no more readings allowed and still no agreement
 */
export type SiteStatus = 'empty' | 'partial' | 'disputed' | 'agreed' | 'unsteady'

/** One site's repeats joined. `value` is null only for an empty site; `apart` needs two readings. Units of the readings. */
export interface Reconciled {
  status: SiteStatus
  value: number | null
  apart: number | null
}

function mean(values: readonly number[]): number {
  return values.reduce((sum, value) => sum + value, 0) / values.length
}

function median(sorted: readonly number[]): number {
  const half = Math.floor(sorted.length / 2)
  return sorted.length % 2 === 1 ? mean(sorted.slice(half, half + 1)) : mean(sorted.slice(half - 1, half + 1))
}

/** Floating sums of half millimetres are exact, of tenths are not: two readings 2.0 apart must agree within 2. */
const HAIR = 1e-9

function limitFor(middle: number, rule: Agreement): number {
  switch (rule.kind) {
    case 'absolute':
      return rule.limit
    case 'percent':
      return Math.max(rule.least ?? 0, (rule.limit / 100) * middle)
    case 'either':
      return middle > rule.above ? (rule.percent / 100) * middle : rule.limit
  }
}

/** True when two readings agree under this rule. */
export function agrees(a: number, b: number, rule: Agreement): boolean {
  return Math.abs(a - b) <= limitFor((a + b) / 2, rule) + HAIR
}

/** Neighbours of a sorted list at the smallest distance. Equal smallest distances all count, so order cannot matter. */
function closestPairs(sorted: readonly number[]): [number, number][] {
  const pairs = sorted.slice(1).map((value, i): [number, number] => [sorted[i] ?? value, value])
  const smallest = Math.min(...pairs.map(([low, high]) => high - low))
  return pairs.filter(([low, high]) => high - low <= smallest + HAIR)
}

function unsettled(sorted: readonly number[], policy: Policy): SiteStatus {
  return sorted.length < policy.most ? 'disputed' : 'unsteady'
}

function joinClosest(sorted: readonly number[], policy: Policy, rule: Agreement): Omit<Reconciled, 'apart'> {
  const agreeing = closestPairs(sorted).filter(([low, high]) => agrees(low, high, rule))
  if (agreeing.length > 0) return { status: 'agreed', value: mean(agreeing.map(mean)) }
  return { status: unsettled(sorted, policy), value: median(sorted) }
}

/** Mean of two that agree; the median of three or more needs no agreement. */
function joinMedian(sorted: readonly number[], policy: Policy, all: boolean): Omit<Reconciled, 'apart'> {
  if (sorted.length > 2) return { status: 'agreed', value: median(sorted) }
  return { status: all ? 'agreed' : unsettled(sorted, policy), value: mean(sorted) }
}

function joined(sorted: readonly number[], policy: Policy): Omit<Reconciled, 'apart'> {
  const rule = policy.agree
  if (sorted.length < policy.base) return { status: 'partial', value: mean(sorted) }
  if (!rule || sorted.length === 1) return { status: 'agreed', value: mean(sorted) }
  const all = agrees(sorted[0] ?? 0, sorted[sorted.length - 1] ?? 0, rule)
  switch (policy.join) {
    case 'closest-pair':
      return joinClosest(sorted, policy, rule)
    case 'mean-or-median':
      return joinMedian(sorted, policy, all)
    case 'mean':
      return all
        ? { status: 'agreed', value: mean(sorted) }
        : { status: unsettled(sorted, policy), value: median(sorted) }
  }
}

/**
 * Joins the readings of one site (all in one unit) by the policy. The order of the readings never matters.
 * `apart`: for a closest pair the distance of that pair, otherwise of the farthest two.
 * @example reconcile([12.5, 15.5, 13], POLICIES.laboratory) // agreed, 12.75: the closest agreeing pair
 */
export function reconcile(values: readonly number[], policy: Policy): Reconciled {
  if (values.length === 0) return { status: 'empty', value: null, apart: null }
  const sorted = [...values].sort((a, b) => a - b)
  if (sorted.length === 1) return { ...joined(sorted, policy), apart: null }
  const [low, high] =
    policy.join === 'closest-pair' && sorted.length >= policy.base
      ? (closestPairs(sorted)[0] ?? [0, 0])
      : [sorted[0] ?? 0, sorted[sorted.length - 1] ?? 0]
  return { ...joined(sorted, policy), apart: high - low }
}

/**
 * Places of the readings that do not enter the value: beside an agreeing closest pair.
 * @example readingsLeftOut([18.5, 22, 19], POLICIES.laboratory) // [1]
 */
export function readingsLeftOut(values: readonly number[], policy: Policy): number[] {
  const rule = policy.agree
  if (!rule || policy.join !== 'closest-pair' || values.length < 3) return []
  const sorted = [...values].sort((a, b) => a - b)
  const pairs = closestPairs(sorted).filter(([low, high]) => agrees(low, high, rule))
  if (pairs.length === 0) return []
  return [...values.keys()].filter((place) => !pairs.some((pair) => pair.includes(values[place] as number)))
}
