import type { ErrorLookup } from '../error/assessor'
import { BETWEEN_VISIT_FACTOR, visitVariance, WEIGHT_NOISE_SHARE } from '../error/change'
import { gradientOf, massVariances, percentVariance, type InputVariances } from '../error/gradient'
import type { EstimateSettings, Reached } from '../equations/estimate'
import type { Measures } from '../equations/equation'
import { isFold } from '../sites'
import type { Composition } from './checkin'
import { DEFAULT_CHOICES, type CheckinFacts, type Choices } from './facts'

/** A value with the variance of its measuring, in its unit squared. */
export interface Measured {
  value: number
  variance: number
}

/** One end of a span: a check-in with its result and, where weighed daily, its week's mean. */
export interface SpanEnd {
  facts: CheckinFacts
  result: Composition
  choices?: Choices
  week?: { weightKg: number; count: number }
}

/** What one check-in says, each with its measuring error. Percent in points, masses in kg, the sum in mm. */
export interface EndFigures {
  weight: Measured | null
  percent: Measured | null
  fat: Measured | null
  lean: Measured | null
  /** Variance of lean minus fat, kg squared. */
  differenceVariance: number
  sum: Measured | null
}

/** Variance of every site's value at a check-in: folds mm^2, girths cm^2. */
export function siteVariances(end: SpanEnd, errors: ErrorLookup, factor = BETWEEN_VISIT_FACTOR): InputVariances {
  const variances: InputVariances = {}
  for (const { site, value, live } of end.result.session.sites) {
    if (value === null) continue
    const tem = errors(site, end.facts.assessorId).share * value
    variances[site] = visitVariance(tem, live.length, factor)
  }
  return variances
}

/** Weight of a check-in, kg: the week's mean where the end carries one, which carries less of the day's noise. */
export function weightOf(end: SpanEnd): Measured | null {
  const kg = end.week?.weightKg ?? end.result.weightKg
  if (kg === null) return null
  return { value: kg, variance: (WEIGHT_NOISE_SHARE * kg) ** 2 / (end.week?.count ?? 1) }
}

function reachedOf(result: Composition): Reached | null {
  const { estimate } = result
  return estimate && 'percent' in estimate ? estimate : null
}

/** Variances of everything an equation can ask of a check-in: its sites and the weight at the visit. */
export function inputVariances(end: SpanEnd, errors: ErrorLookup, factor = BETWEEN_VISIT_FACTOR): InputVariances {
  const kg = end.result.weightKg
  const sites = siteVariances(end, errors, factor)
  return kg === null ? sites : { ...sites, weight: (WEIGHT_NOISE_SHARE * kg) ** 2 }
}

/** The chosen equation's measures and settings at a check-in; null without a percent. */
export function estimateInputs(
  end: SpanEnd,
): { reached: Reached; measures: Measures; settings: EstimateSettings } | null {
  const reached = reachedOf(end.result)
  if (!reached) return null
  const { person } = end.facts
  const { ageYears, values, heightCm, weightKg } = end.result
  const choices = end.choices ?? DEFAULT_CHOICES
  const measures = { ...values, age: ageYears, height: heightCm ?? NaN, weight: weightKg ?? NaN } as Measures
  const blackAthleteTerm = choices.blackAthleteTerm === true && person.ancestry === 'black'
  return { reached, measures, settings: { person, conversion: choices.conversion, options: { blackAthleteTerm } } }
}

function sumOf(end: SpanEnd, variances: InputVariances): Measured | null {
  const { sumMm, session } = end.result
  if (sumMm === null) return null
  const folds = session.sites.filter(({ site }) => isFold(site))
  return { value: sumMm, variance: folds.reduce((total, { site }) => total + (variances[site] ?? 0), 0) }
}

/** Figures of ends that have been asked for already: a dragged jaw asks for the same ones again and again. */
const known = new WeakMap<SpanEnd, { errors: ErrorLookup; factor: number; figures: EndFigures }>()

/** Everything one end of a span says, with the error of its measuring (not of the level). */
export function endFigures(end: SpanEnd, errors: ErrorLookup, factor = BETWEEN_VISIT_FACTOR): EndFigures {
  const before = known.get(end)
  if (before && before.errors === errors && before.factor === factor) return before.figures
  const figures = computeFigures(end, errors, factor)
  known.set(end, { errors, factor, figures })
  return figures
}

function computeFigures(end: SpanEnd, errors: ErrorLookup, factor: number): EndFigures {
  const all = inputVariances(end, errors, factor)
  const weight = weightOf(end)
  const nothing = { weight, percent: null, fat: null, lean: null, differenceVariance: 0, sum: sumOf(end, all) }
  const inputs = estimateInputs(end)
  const gradient = inputs && gradientOf(inputs.reached.equation, inputs.measures, inputs.settings)
  if (!inputs || !gradient) return nothing
  const { percent } = inputs.reached
  const withPercent = { ...nothing, percent: { value: percent, variance: percentVariance(gradient, all) } }
  if (!weight) return withPercent
  // A week's mean is another weight than the one the equation may have asked for.
  const split = end.week ? { splitVariance: weight.variance } : {}
  const mass = massVariances(gradient, all, { weightKg: weight.value, percent, ...split })
  const fatKg = (weight.value * percent) / 100
  return {
    ...withPercent,
    fat: { value: fatKg, variance: mass.fat },
    lean: { value: weight.value - fatKg, variance: mass.lean },
    differenceVariance: mass.difference,
  }
}
