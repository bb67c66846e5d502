import { daysBetween } from '../calendar'
import type { ErrorLookup } from '../error/assessor'
import { BETWEEN_VISIT_FACTOR, changeOf, INTER_ASSESSOR_FACTOR, Z_95, type Change } from '../error/change'
import type { InputVariances } from '../error/gradient'
import { isFold, type SiteId } from '../sites'
import { recomposition, type Recomposition } from '../trend/recomposition'
import type { MassUnit } from '../units'
import { comparability, type Comparability } from '../composition/comparability'
import { dayOf } from '../composition/facts'
import { onTermsOf } from '../composition/terms'
import { endFigures, siteVariances, type EndFigures, type Measured, type SpanEnd } from '../composition/end-figures'

/** One site over a span. Folds mm, girths cm. */
export interface SpanSite {
  site: SiteId
  change: Change
}

/** Everything about a comparison of two check-ins. Null: not known at both ends, or not comparable. */
export interface Span {
  days: number
  comparability: Comparability
  /** What each end says, weighed alike. */
  then: EndFigures
  now: EndFigures
  weight: Change | null
  /** Weights are the weeks' means, not the weight at the visit. */
  byWeek: boolean
  fat: Change | null
  lean: Change | null
  percent: Change | null
  /** Sum of the folds both ends hold, mm, and which they are. */
  sum: Change | null
  summed: SiteId[]
  folds: SpanSite[]
  girths: SpanSite[]
  corrected: { limb: 'arm' | 'thigh' | 'calf'; change: Change }[]
  recomposition: Recomposition | null
}

function between(a: Measured | null | undefined, b: Measured | null | undefined): Change | null {
  return a && b ? changeOf(a.value, b.value, a.variance + b.variance) : null
}

function sitesBetween(a: SpanEnd, b: SpanEnd, va: InputVariances, vb: InputVariances): SpanSite[] {
  return b.result.session.sites.flatMap(({ site, value }): SpanSite[] => {
    const then = a.result.values[site]
    if (then === undefined || value === null) return []
    return [{ site, change: changeOf(then, value, (va[site] ?? 0) + (vb[site] ?? 0)) }]
  })
}

const LIMBS = [
  { limb: 'arm', girth: 'arm-relaxed', folds: ['triceps'] },
  { limb: 'thigh', girth: 'thigh-girth', folds: ['front-thigh', 'thigh'] },
  { limb: 'calf', girth: 'calf-girth', folds: ['medial-calf'] },
] as const

function correctedBetween(a: SpanEnd, b: SpanEnd, va: InputVariances, vb: InputVariances): Span['corrected'] {
  const PI_CM_PER_MM = Math.PI / 10
  return LIMBS.flatMap(({ limb, girth, folds }) => {
    const [then, now] = [a.result.indexes.corrected[limb], b.result.indexes.corrected[limb]]
    const fold = folds.find((site) => va[site] !== undefined && vb[site] !== undefined)
    if (then === null || now === null || !fold) return []
    const varianceOf = (v: InputVariances) => (v[girth] ?? 0) + PI_CM_PER_MM ** 2 * (v[fold] ?? 0)
    return [{ limb, change: changeOf(then, now, varianceOf(va) + varianceOf(vb)) }]
  })
}

function sumBetween(folds: readonly SpanSite[]): Change | null {
  if (folds.length === 0) return null
  const [then, now] = [0, 0].map((_, end) =>
    folds.reduce((sum, { change }) => sum + (end === 0 ? change.then : change.now), 0),
  )
  // Variances add over the sites: each site's error is its own.
  const variance = folds.reduce((sum, { change }) => sum + (change.error / Z_95) ** 2, 0)
  return changeOf(then ?? 0, now ?? 0, variance)
}

/** A week's mean is held against a week's mean only: a dry weight and one as it stands differ by more than noise. */
function alike(a: SpanEnd, b: SpanEnd): [SpanEnd, SpanEnd] {
  if ((a.week === undefined) === (b.week === undefined)) return [a, b]
  const without = ({ week: _, ...end }: SpanEnd): SpanEnd => end
  return [without(a), without(b)]
}

/**
 * Everything about a comparison of two check-ins of one client: what changed, by how much beyond error, and what can be
 * compared at all. The level's standard error stays out of it: it sits on both ends alike.
 * @param then the earlier check-in
 * @param now the later one
 * @param errors each assessor's error at each site
 */
export function composeSpan(then: SpanEnd, now: SpanEnd, errors: ErrorLookup, massUnit: MassUnit = 'lb'): Span {
  // The newer of the two says age and height, whichever way round they are asked for.
  const newest = dayOf(then.facts) > dayOf(now.facts) ? then : now
  const [a, b] = alike(onTermsOf(then, newest), onTermsOf(now, newest))
  const comparable = comparability(a, b)
  const factor = BETWEEN_VISIT_FACTOR * (comparable.otherAssessor ? INTER_ASSESSOR_FACTOR : 1)
  const [va, vb] = [siteVariances(a, errors, factor), siteVariances(b, errors, factor)]
  const sites = sitesBetween(a, b, va, vb)
  const folds = sites.filter(({ site }) => isFold(site))
  const [fa, fb] = [endFigures(a, errors, factor), endFigures(b, errors, factor)]
  const percent = comparable.percent ? between(fa.percent, fb.percent) : null
  const [fat, lean] = comparable.percent ? [between(fa.fat, fb.fat), between(fa.lean, fb.lean)] : [null, null]
  return {
    days: daysBetween(dayOf(a.facts), dayOf(b.facts)),
    comparability: comparable,
    then: fa,
    now: fb,
    byWeek: a.week !== undefined,
    weight: between(fa.weight, fb.weight),
    fat,
    lean,
    percent,
    sum: sumBetween(folds),
    summed: folds.map(({ site }) => site),
    folds,
    girths: sites.filter(({ site }) => !isFold(site)),
    corrected: correctedBetween(a, b, va, vb),
    recomposition:
      fat && lean
        ? recomposition(
            fat.change,
            lean.change,
            Z_95 * Math.sqrt(fa.differenceVariance + fb.differenceVariance),
            massUnit,
          )
        : null,
  }
}
