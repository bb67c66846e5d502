import { compute, type EstimateSettings } from '../equations/estimate'
import type { Equation, InputId, Measures } from '../equations/equation'
import { asSite, isFold } from '../sites'
import { markOf, readingVariance, siteVisitVariance, type ErrorModel } from './model'
import type { Gradient, InputVariances } from './gradient'
import { simulatePercent } from './monte-carlo'

/** Readings a value usually stands on. */
const USUAL_READINGS = 2
/** Share of a slope's step from which the bend counts. */
const BENT = 0.25
const DRAWS = 2000
const SEED = 20

/** Variances of an equation's inputs at a visit, in their units squared. */
export function usualVariances(equation: Equation, measures: Measures, model: ErrorModel): InputVariances {
  const variances: InputVariances = {}
  for (const input of equation.inputs) {
    const site = asSite(input)
    if (input === 'weight') variances.weight = (model.weightShare * measures.weight) ** 2
    if (!site) continue
    const reading = readingVariance(site, measures[site], markOf(site), model)
    const day = isFold(site) ? (model.dayShare * measures[site]) ** 2 : 0
    variances[input] = siteVisitVariance(reading, USUAL_READINGS, model) + day
  }
  return variances
}

/**
 * Variance of percent fat that comes from the equation's bend beyond its slopes, points squared: near the turning point
 * of an equation in squares the slopes are nothing and the error is not. By Monte Carlo, and only where an input's error
 * meets a bend worth it; 0 elsewhere.
 * @param gradient the equation's slopes at these measures, null where it gives nothing
 */
export function curvatureOf(
  equation: Equation,
  measures: Measures,
  settings: EstimateSettings,
  model: ErrorModel,
  gradient: Gradient | null,
): number {
  if (!gradient) return 0
  const variances = usualVariances(equation, measures, model)
  const moved = { ...measures }
  const at = (input: InputId, by: number) => {
    moved[input] = measures[input] + by
    const result = compute(equation, moved, settings)
    moved[input] = measures[input]
    return 'percent' in result ? result.percent : NaN
  }
  const here = at('age', 0)
  let slopes = 0
  let [steps, bends] = [0, 0]
  for (const input of Object.keys(variances) as InputId[]) {
    const sd = Math.sqrt(variances[input] ?? 0)
    slopes += ((gradient[input] ?? 0) * sd) ** 2
    const [up, down] = [at(input, sd), at(input, -sd)]
    steps += Math.abs(up - down) / 2
    bends += Math.abs(up + down - 2 * here) / 2
  }
  // An edge of what is answered (NaN) is a reason to simulate as well.
  if (bends < BENT * steps) return 0
  const { standardDeviation } = simulatePercent(equation, measures, variances, settings, { draws: DRAWS, seed: SEED })
  return Number.isFinite(standardDeviation) ? Math.max(0, standardDeviation ** 2 - slopes) : 0
}
