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

/** True when two readings agree under this rule. */
export function agrees(a: number, b: number, rule: Agreement): boolean {
  const apart = Math.abs(a - b)
  const limit = rule.kind === 'absolute' ? rule.limit : (rule.limit / 100) * ((a + b) / 2)
  return apart <= limit + HAIR
}

/** Neighbours of a sorted list at the smallest distance. Equal smallest distances all count, so order cannot matter. */
function closestPairs(sorted: readonly number[]): [number, number][] {
  const pairs = sorted.slice(1).map((value, i): [number, number] => [sorted[i] ?? value, value])
  const smallest = Math.min(...pairs.map(([low, high]) => high - low))
  return pairs.filter(([low, high]) => high - low <= smallest + HAIR)
}

function joinClosest(sorted: readonly number[], policy: Policy, rule: Agreement): Reconciled {
  const pairs = closestPairs(sorted)
  const [first] = pairs
  const apart = first ? first[1] - first[0] : null
  const agreeing = pairs.filter(([low, high]) => agrees(low, high, rule))
  if (agreeing.length > 0) return { status: 'agreed', value: mean(agreeing.map(mean)), apart }
  const status = sorted.length < policy.most ? 'disputed' : 'unsteady'
  return { status, value: median(sorted), apart }
}

function joinMedian(sorted: readonly number[], policy: Policy, rule: Agreement): Reconciled {
  const low = sorted[0] ?? 0
  const high = sorted[sorted.length - 1] ?? 0
  const apart = high - low
  if (sorted.length > 2) return { status: 'agreed', value: median(sorted), apart }
  if (agrees(low, high, rule)) return { status: 'agreed', value: mean(sorted), apart }
  return { status: sorted.length < policy.most ? 'disputed' : 'unsteady', value: median(sorted), apart }
}

/**
 * Joins the readings of one site (all in one unit) by the policy. The order of the readings never matters.
 * @example reconcile([12.5, 15.5, 13], POLICIES.laboratory) // agreed, 12.75: the closest agreeing pair
 */
export function reconcile(values: readonly number[], policy: Policy): Reconciled {
  if (values.length === 0) return { status: 'empty', value: null, apart: null }
  const sorted = [...values].sort((a, b) => a - b)
  const spread = (sorted[sorted.length - 1] ?? 0) - (sorted[0] ?? 0)
  const apart = sorted.length > 1 ? spread : null
  if (sorted.length < policy.base) return { status: 'partial', value: mean(sorted), apart }
  if (!policy.agree || policy.join === 'mean' || sorted.length === 1) {
    return { status: 'agreed', value: mean(sorted), apart }
  }
  return policy.join === 'closest-pair'
    ? joinClosest(sorted, policy, policy.agree)
    : joinMedian(sorted, policy, policy.agree)
}
