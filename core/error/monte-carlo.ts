import { percentFromDensity } from '../equations/density'
import { compute, type EstimateSettings } from '../equations/estimate'
import { NO_OPTIONS, type Equation, type InputId, type Measures } from '../equations/equation'
import { seededRandom } from '../simulate/random'
import type { InputVariances } from './gradient'

/** What repeated measuring would give, by simulation. Points of percent fat. */
export interface MonteCarlo {
  mean: number
  standardDeviation: number
  /** 2.5 and 97.5 percentile. */
  interval: { low: number; high: number }
  /** Draws that gave a percent; the rest were refused. */
  answered: number
}

/** Quantile of sorted values with linear interpolation between order statistics (R's type 7). */
export function quantileSorted(sorted: ArrayLike<number>, share: number): number {
  const position = share * (sorted.length - 1)
  const below = Math.floor(position)
  const low = sorted[below] ?? NaN
  const high = sorted[Math.min(below + 1, sorted.length - 1)] ?? NaN
  return low + (high - low) * (position - below)
}

/** Fills an array with normals, two from each pair of uniforms (Box-Muller). */
function fillNormals(into: Float64Array, next: () => number): void {
  for (let i = 0; i < into.length; i += 2) {
    const radius = Math.sqrt(-2 * Math.log(1 - next()))
    const angle = 2 * Math.PI * next()
    into[i] = radius * Math.cos(angle)
    if (i + 1 < into.length) into[i + 1] = radius * Math.sin(angle)
  }
}

/**
 * Percent fat under random errors of its inputs: the check of the gradient, for any equation.
 * @param draws how many simulated visits
 * @param seed the same seed gives the same answer
 */
export function simulatePercent(
  equation: Equation,
  measures: Measures,
  variances: InputVariances,
  settings: EstimateSettings,
  { draws, seed }: { draws: number; seed: number },
): MonteCarlo {
  const random = seededRandom(seed)
  const noisy = (Object.keys(variances) as InputId[]).filter((input) => (variances[input] ?? 0) > 0)
  const spreads = noisy.map((input) => Math.sqrt(variances[input] ?? 0))
  const normals = new Float64Array(noisy.length)
  const drawn: Measures = { ...measures }
  const percents = new Float64Array(draws)
  const { sex } = settings.person
  const options = settings.options ?? NO_OPTIONS
  // Far from every edge of the equation the checks of each draw can be left out.
  const checked = !isFarFromEdges(equation, measures, noisy, spreads)
  let answered = 0
  let sum = 0
  for (let draw = 0; draw < draws; draw += 1) {
    fillNormals(normals, random.next)
    for (let i = 0; i < noisy.length; i += 1) {
      const input = noisy[i]
      if (input) drawn[input] = measures[input] + (normals[i] ?? 0) * (spreads[i] ?? 0)
    }
    let percent: number
    if (checked) {
      const result = compute(equation, drawn, settings)
      percent = 'percent' in result ? result.percent : NaN
    } else {
      const value = equation.formula(drawn, sex, options)
      percent = equation.gives === 'density' ? percentFromDensity(value, settings.conversion) : value
    }
    if (!(percent >= 0 && percent <= 75)) continue
    percents[answered] = percent
    sum += percent
    answered += 1
  }
  return summary(percents.subarray(0, answered), sum / answered, answered)
}

/** Eight standard errors from zero and from the vertex: no draw of any size used here gets there. */
function isFarFromEdges(equation: Equation, measures: Measures, noisy: InputId[], spreads: number[]): boolean {
  if (equation.positive || !noisy.every((input, i) => measures[input] > 8 * (spreads[i] ?? 0))) return false
  if (!equation.vertex) return true
  const { of, at } = equation.vertex
  const total = Math.sqrt(spreads.reduce((sum, spread) => sum + spread ** 2, 0))
  const value = of === 'sum' ? equation.summed.reduce((sum, site) => sum + measures[site], 0) : measures[of]
  return value + 8 * total < at
}

function summary(percents: Float64Array, mean: number, answered: number): MonteCarlo {
  let squares = 0
  for (const percent of percents) squares += (percent - mean) ** 2
  percents.sort()
  return {
    mean,
    standardDeviation: Math.sqrt(squares / (answered - 1)),
    interval: { low: quantileSorted(percents, 0.025), high: quantileSorted(percents, 0.975) },
    answered,
  }
}
