import { percentFromDensity, type ConversionId } from './density'
import type { Equation, InputId, KnownMeasures, Measures, Sex } from './equation'

/** Something the reader of an estimate has to know, with its sentence. */
export interface Caution {
  code: 'sex' | 'age' | 'sum'
  sentence: string
}

/** One equation's answer for one person. Percent in points, density in g/mL. */
export type Estimate =
  | {
      status: 'ok' | 'caution'
      equation: Equation
      percent: number
      density: number | null
      /** Percent of the level band (68 %), or null when no standard error is published. */
      band: { low: number; high: number } | null
      cautions: Caution[]
    }
  | { status: 'refused'; equation: Equation; reason: string }
  | { status: 'missing'; equation: Equation; missing: InputId[] }

/** Percents a living body can have; outside, the inputs are wrong and the estimate is refused. */
export const PERCENT_RANGE = { low: 0, high: 75 } as const

function isComplete(equation: Equation, known: KnownMeasures): known is Measures {
  return equation.inputs.every((input) => Number.isFinite(known[input]))
}

function vertexReason(equation: Equation, measures: Measures): string | null {
  const { vertex } = equation
  if (!vertex) return null
  const value =
    vertex.of === 'sum' ? equation.summed.reduce((sum, site) => sum + measures[site], 0) : measures[vertex.of]
  if (value < vertex.at) return null
  const what = vertex.of === 'sum' ? 'the sum of folds' : `the ${vertex.of}`
  return `Beyond ${Math.floor(vertex.at)} mm ${what} turns this equation: a bigger fold would read leaner.`
}

function cautionsFor(equation: Equation, measures: KnownMeasures, sex: Sex): Caution[] {
  const cautions: Caution[] = []
  if (equation.sex !== 'both' && equation.sex !== sex) {
    cautions.push({ code: 'sex', sentence: `Made for ${equation.sex === 'male' ? 'men' : 'women'}.` })
  }
  const { ages } = equation
  const { age } = measures
  if (ages && age !== undefined && (age < ages.low || age > ages.high)) {
    cautions.push({
      code: 'age',
      sentence: `Age ${age} is outside the sample this equation was made on (${ages.low} to ${ages.high}).`,
    })
  }
  return cautions
}

/** One equation applied to what is known of a person. Never throws: what cannot be computed is said. */
export function estimate(equation: Equation, known: KnownMeasures, sex: Sex, conversion: ConversionId): Estimate {
  if (!isComplete(equation, known)) {
    const missing = equation.inputs.filter((input) => !Number.isFinite(known[input]))
    return { status: 'missing', equation, missing }
  }
  const turned = vertexReason(equation, known)
  if (turned) return { status: 'refused', equation, reason: turned }
  const value = equation.formula(known)
  const density = equation.gives === 'density' ? value : null
  const percent = density === null ? value : percentFromDensity(density, conversion)
  if (!(percent >= PERCENT_RANGE.low && percent <= PERCENT_RANGE.high)) {
    return { status: 'refused', equation, reason: 'These folds give a percent no body has: check them.' }
  }
  const cautions = cautionsFor(equation, known, sex)
  const see = equation.seePercent
  return {
    status: cautions.length > 0 ? 'caution' : 'ok',
    equation,
    percent,
    density,
    band: see === null ? null : { low: Math.max(0, percent - see), high: percent + see },
    cautions,
  }
}
