import { fixed } from '../units/round'
import { applicability, conversionCautions, type Caution, type PersonFacts } from './applicability'
import { conversionOf, percentFromDensity, type ConversionId } from './density'
import { INPUTS, inputsOf } from './inputs'
import {
  NO_OPTIONS,
  type Equation,
  type FormulaOptions,
  type InputId,
  type KnownMeasures,
  type Measures,
} from './equation'

/** One equation's answer for one person. Percent in points, density in g/mL, unrounded. */
export type Estimate =
  | {
      status: 'ok' | 'caution'
      equation: Equation
      percent: number
      density: number | null
      /** Standard error of estimate for this sex, points (68 %); null when not known. */
      seePercent: number | null
      /** Percent of the level band (68 %), or null when no standard error is known. */
      band: { low: number; high: number } | null
      cautions: Caution[]
    }
  | { status: 'refused'; equation: Equation; reason: string }
  | { status: 'missing'; equation: Equation; missing: InputId[] }

/** An estimate that gave numbers. */
export type Reached = Extract<Estimate, { percent: number }>

/** How a person is estimated, whatever the equation. */
export interface EstimateSettings {
  person: PersonFacts
  conversion: ConversionId
  options?: FormulaOptions
}

/** Percents a living body can have; outside, the inputs are wrong and the estimate is refused. */
export const PERCENT_RANGE = { low: 0, high: 75 } as const

/** True for a measure that is there: neither left out nor NaN. */
function isKnown(value: number | undefined): boolean {
  return value !== undefined && value === value
}

function isComplete(equation: Equation, known: KnownMeasures): known is Measures {
  for (const { get } of inputsOf(equation)) if (!isKnown(get(known as Measures))) return false
  return true
}

/** Why the inputs themselves cannot be computed with, or null. */
function refusal(equation: Equation, measures: Measures): string | null {
  const inputs = inputsOf(equation)
  for (let i = 0; i < inputs.length; i += 1) {
    const value = inputs[i]?.get(measures) ?? NaN
    if (!(value > 0 && value < Infinity)) return `The value for ${equation.inputs[i]} has to be above zero.`
  }
  const { vertex } = equation
  if (vertex) {
    const value = vertex.of === 'sum' ? (equation.sum?.(measures) ?? 0) : INPUTS[vertex.of].get(measures)
    if (value >= vertex.at) {
      const [what, unit] = vertex.of === 'sum' ? ['a sum', 'mm'] : [vertex.of, 'cm']
      return `From ${what} of ${fixed(vertex.at, 1)} ${unit} on this equation turns: a bigger body would read leaner.`
    }
  }
  for (const { of, sentence } of equation.positive ?? []) if (!(of(measures) > 0)) return sentence
  return null
}

/**
 * Percent and density of one equation for inputs known to be complete, or the sentence that refuses them. No cautions:
 * the fast inside of `estimate`, for propagation and simulation. Never throws on finite input.
 */
export function compute(
  equation: Equation,
  measures: Measures,
  { person, conversion, options = NO_OPTIONS }: EstimateSettings,
): { percent: number; density: number | null } | { reason: string } {
  const reason = refusal(equation, measures)
  if (reason) return { reason }
  const value = equation.formula(measures, person.sex, options)
  const density = equation.gives === 'density' ? value : null
  const percent = density === null ? value : percentFromDensity(density, conversion)
  if (!(percent >= PERCENT_RANGE.low && percent <= PERCENT_RANGE.high)) {
    return {
      reason: `These values give ${Number.isFinite(percent) ? `${fixed(percent, 1)} %` : 'no percent'}, outside ${PERCENT_RANGE.low} to ${PERCENT_RANGE.high}: check them.`,
    }
  }
  return { percent, density }
}

/** One equation applied to what is known of a person. Never throws: what cannot be computed is said. */
export function estimate(equation: Equation, known: KnownMeasures, settings: EstimateSettings): Estimate {
  if (!isComplete(equation, known)) {
    return { status: 'missing', equation, missing: equation.inputs.filter((input) => !isKnown(known[input])) }
  }
  const measures = known
  const result = compute(equation, measures, settings)
  if ('reason' in result) return { status: 'refused', equation, reason: result.reason }
  const { person, conversion, options } = settings
  const cautions = applicability(equation, measures, person, options)
  if (result.density !== null) cautions.push(...conversionCautions(conversionOf(conversion), known.age, person))
  const seePercent = equation.seePercent[person.sex]
  const { percent, density } = result
  return {
    status: cautions.length > 0 ? 'caution' : 'ok',
    equation,
    percent,
    density,
    seePercent,
    band: seePercent === null ? null : { low: Math.max(0, percent - seePercent), high: percent + seePercent },
    cautions,
  }
}
