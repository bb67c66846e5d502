import {
  BETWEEN_VISIT_FACTOR,
  changeOf,
  INTER_ASSESSOR_FACTOR,
  visitVariance,
  WEIGHT_NOISE_SHARE,
  Z_95,
  type Change,
} from '../error/change'
import type { ErrorLookup } from '../error/assessor'
import { gradientOf, massVariances, percentVariance, type InputVariances } from '../error/gradient'
import type { Reached } from '../equations/estimate'
import type { Measures } from '../equations/equation'
import { isFold, type SiteId } from '../sites'
import { recomposition, type Recomposition } from '../trend/recomposition'
import type { MassUnit } from '../units'
import type { Composition } from './checkin'
import { comparability, type Comparability } from './comparability'
import { DEFAULT_CHOICES, type CheckinFacts, type Choices } from './facts'

/** One end of a span: a check-in with its result and, where weighed daily, its week's mean. */
export interface SpanEnd {
  facts: CheckinFacts
  result: Composition
  choices?: Choices
  week?: { weightKg: number; count: number }
}

/** One site over a span. Folds mm, girths cm. */
export interface SpanSite {
  site: SiteId
  change: Change
}

/** Everything about a comparison of two check-ins. Null: not known at both ends, or not comparable. */
export interface Span {
  days: number
  comparability: Comparability
  weight: Change | null
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

const DAY_MS = 24 * 60 * 60 * 1000

function siteVariances(end: SpanEnd, errors: ErrorLookup, factor: number): InputVariances {
  const variances: InputVariances = {}
  for (const { site, value, live } of end.result.session.sites) {
    if (value === null) continue
    const tem = errors(site, end.facts.assessorId).share * value
    variances[site] = visitVariance(tem, live.length, factor)
  }
  return variances
}

/** A week's mean carries less of the day's noise than one weigh-in. */
function weightOf(end: SpanEnd): { kg: number; variance: number } | null {
  const kg = end.week?.weightKg ?? end.result.weightKg
  if (kg === null) return null
  return { kg, variance: (WEIGHT_NOISE_SHARE * kg) ** 2 / (end.week?.count ?? 1) }
}

interface Masses {
  percent: { value: number; variance: number }
  fat: { value: number; variance: number } | null
  lean: { value: number; variance: number } | null
  differenceVariance: number
}

function reachedOf(result: Composition): Reached | null {
  const { estimate } = result
  return estimate && 'percent' in estimate ? estimate : null
}

function massesOf(end: SpanEnd, variances: InputVariances): Masses | null {
  const reached = reachedOf(end.result)
  if (!reached) return null
  const { person } = end.facts
  const { ageYears, values, heightCm } = end.result
  const weight = weightOf(end)
  const choices = end.choices ?? DEFAULT_CHOICES
  const measures = {
    ...values,
    age: ageYears,
    height: heightCm ?? NaN,
    weight: end.result.weightKg ?? NaN,
  } as Measures
  const blackAthleteTerm = choices.blackAthleteTerm === true && person.ancestry === 'black'
  const gradient = gradientOf(reached.equation, measures, {
    person,
    conversion: choices.conversion,
    options: { blackAthleteTerm },
  })
  if (!gradient) return null
  const all: InputVariances = weight ? { ...variances, weight: weight.variance } : variances
  const percent = { value: reached.percent, variance: percentVariance(gradient, all) }
  if (!weight) return { percent, fat: null, lean: null, differenceVariance: 0 }
  const mass = massVariances(gradient, all, { weightKg: weight.kg, percent: reached.percent })
  const fatKg = (weight.kg * reached.percent) / 100
  return {
    percent,
    fat: { value: fatKg, variance: mass.fat },
    lean: { value: weight.kg - fatKg, variance: mass.lean },
    differenceVariance: mass.difference,
  }
}

type Measured = { value: number; variance: number }

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

/**
 * Everything about a comparison of two check-ins of one client: what changed, by how much beyond error, and what can be
 * compared at all. The level's standard error stays out of it: it sits on both ends alike.
 * @param a the earlier check-in
 * @param b the later one
 * @param errors each assessor's error at each site
 */
export function composeSpan(a: SpanEnd, b: SpanEnd, errors: ErrorLookup, massUnit: MassUnit = 'lb'): Span {
  const comparable = comparability(a, b)
  const factor = BETWEEN_VISIT_FACTOR * (comparable.otherAssessor ? INTER_ASSESSOR_FACTOR : 1)
  const [va, vb] = [siteVariances(a, errors, factor), siteVariances(b, errors, factor)]
  const sites = sitesBetween(a, b, va, vb)
  const folds = sites.filter(({ site }) => isFold(site))
  const [wa, wb] = [weightOf(a), weightOf(b)]
  const [ma, mb] = comparable.percent ? [massesOf(a, va), massesOf(b, vb)] : [null, null]
  const [fat, lean] = [between(ma?.fat, mb?.fat), between(ma?.lean, mb?.lean)]
  return {
    days: Math.round((Date.parse(b.facts.startedAt) - Date.parse(a.facts.startedAt)) / DAY_MS),
    comparability: comparable,
    weight: wa && wb ? changeOf(wa.kg, wb.kg, wa.variance + wb.variance) : null,
    fat,
    lean,
    percent: between(ma?.percent, mb?.percent),
    sum: sumBetween(folds),
    summed: folds.map(({ site }) => site),
    folds,
    girths: sites.filter(({ site }) => !isFold(site)),
    corrected: correctedBetween(a, b, va, vb),
    recomposition:
      fat && lean && ma && mb
        ? recomposition(
            fat.change,
            lean.change,
            Z_95 * Math.sqrt(ma.differenceVariance + mb.differenceVariance),
            massUnit,
          )
        : null,
  }
}
