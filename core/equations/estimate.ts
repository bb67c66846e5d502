import { applicability, conversionCautions, type Caution, type PersonFacts } from './applicability'
import { conversionOf, percentFromDensity, type ConversionId } from './density'
import {
  NO_OPTIONS,
  sumOf,
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

function missingInputs(equation: Equation, known: KnownMeasures): InputId[] {
  return equation.inputs.filter((input) => known[input] === undefined || Number.isNaN(known[input]))
}

/** Why the inputs themselves cannot be computed with, or null. */
function refusal(equation: Equation, measures: Measures): string | null {
  const wrong = equation.inputs.find((input) => !(measures[input] > 0) || measures[input] === Infinity)
  if (wrong) return `The value for ${wrong} has to be above zero.`
  const { vertex } = equation
  if (vertex) {
    const value = vertex.of === 'sum' ? sumOf(equation.summed, measures) : measures[vertex.of]
    const [what, unit] = vertex.of === 'sum' ? ['a sum', 'mm'] : [vertex.of, 'cm']
    if (value >= vertex.at) {
      return `From ${what} of ${vertex.at.toFixed(1)} ${unit} on this equation turns: a bigger body would read leaner.`
    }
  }
  return equation.positive?.find(({ of }) => !(of(measures) > 0))?.sentence ?? null
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
      reason: `These values give ${Number.isFinite(percent) ? `${percent.toFixed(1)} %` : 'no percent'}, outside ${PERCENT_RANGE.low} to ${PERCENT_RANGE.high}: check them.`,
    }
  }
  return { percent, density }
}

/** One equation applied to what is known of a person. Never throws: what cannot be computed is said. */
export function estimate(equation: Equation, known: KnownMeasures, settings: EstimateSettings): Estimate {
  const missing = missingInputs(equation, known)
  if (missing.length > 0) return { status: 'missing', equation, missing }
  const measures = known as Measures
  const result = compute(equation, measures, settings)
  if ('reason' in result) return { status: 'refused', equation, reason: result.reason }
  const { person, conversion } = settings
  const cautions = applicability(equation, measures, person)
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
