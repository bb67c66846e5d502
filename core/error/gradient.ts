import { compute, type EstimateSettings } from '../equations/estimate'
import type { Equation, InputId, Measures } from '../equations/equation'

/** Derivative of percent fat by each input: points per mm, cm, kg or year. */
export type Gradient = Partial<Record<InputId, number>>

/** Relative step of the central difference: near the cube root of the double's precision. */
const STEP = 6e-6

function percentAt(equation: Equation, measures: Measures, settings: EstimateSettings): number {
  const result = compute(equation, measures, settings)
  return 'percent' in result ? result.percent : NaN
}

/**
 * Gradient of an equation's percent fat at a person's measures, by central differences: no equation has to be written
 * twice. Null where the estimate itself is refused.
 */
export function gradientOf(equation: Equation, measures: Measures, settings: EstimateSettings): Gradient | null {
  const here = percentAt(equation, measures, settings)
  if (!Number.isFinite(here)) return null
  const moved = { ...measures }
  const derivative = (input: InputId): number => {
    const value = measures[input]
    const step = Math.max(Math.abs(value), 1) * STEP
    moved[input] = value + step
    const up = percentAt(equation, moved, settings)
    moved[input] = value - step
    const down = percentAt(equation, moved, settings)
    moved[input] = value
    // At the edge of what is answered only one side exists.
    if (!Number.isFinite(up)) return (here - down) / step
    return Number.isFinite(down) ? (up - down) / (2 * step) : (up - here) / step
  }
  const gradient: Gradient = {}
  // Folds that stand in the formula as one sum move the percent alike.
  let bySum: number | null = null
  const optional = (equation.optional ?? []).filter((input) => Number.isFinite(measures[input]))
  for (const input of [...equation.inputs, ...optional]) {
    if (input === 'age') {
      // Age is known to the year and steps with the table of some equations: it carries no measuring error.
      gradient.age = 0
    } else if ((equation.summed as readonly InputId[]).includes(input)) {
      gradient[input] = bySum ??= derivative(input)
    } else gradient[input] = derivative(input)
  }
  return gradient
}

/** Variances of inputs, in their units squared. An input left out is taken as exact. */
export type InputVariances = Partial<Record<InputId, number>>

/** Variance of percent fat, points squared: each input's variance through its derivative, inputs independent. */
export function percentVariance(gradient: Gradient, variances: InputVariances): number {
  let variance = 0
  for (const input of Object.keys(gradient) as InputId[]) {
    variance += (gradient[input] ?? 0) ** 2 * (variances[input] ?? 0)
  }
  return variance
}
