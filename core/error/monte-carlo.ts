import { conversionOf } from '../equations/density'
import { compute, type EstimateSettings } from '../equations/estimate'
import { NO_OPTIONS, type Equation, type InputId, type Measures } from '../equations/equation'
import { INPUTS } from '../equations/inputs'
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

/** Puts the k-th smallest value at place k, none larger before it (Hoare's selection): what a quantile needs of a sort. */
function select(values: Float64Array, k: number): number {
  let [low, high] = [0, values.length - 1]
  while (low < high) {
    const pivot = values[(low + high) >> 1] ?? NaN
    let [i, j] = [low, high]
    while (i <= j) {
      while ((values[i] ?? Infinity) < pivot) i += 1
      while ((values[j] ?? -Infinity) > pivot) j -= 1
      if (i > j) break
      const kept = values[i] ?? NaN
      values[i] = values[j] ?? NaN
      values[j] = kept
      i += 1
      j -= 1
    }
    if (k <= j) high = j
    else if (k >= i) low = i
    else break
  }
  return values[k] ?? NaN
}

/**
 * Quantile with linear interpolation between order statistics (R's type 7). Changes the order of `values`.
 * @param share 0 to 1
 */
export function quantileOf(values: Float64Array, share: number): number {
  const position = share * (values.length - 1)
  const below = Math.floor(position)
  const low = select(values, below)
  if (below + 1 >= values.length) return low
  let next = Infinity
  for (let i = below + 1; i < values.length; i += 1) next = Math.min(next, values[i] ?? Infinity)
  return low + (next - low) * (position - below)
}

/** Normals two at a time from points in the unit disc (Marsaglia's polar method: no sine, no cosine). */
function normalSource(next: () => number): () => number {
  let spare = NaN
  return () => {
    if (spare === spare) {
      const kept = spare
      spare = NaN
      return kept
    }
    let x: number, y: number, square: number
    do {
      x = 2 * next() - 1
      y = 2 * next() - 1
      square = x * x + y * y
    } while (square >= 1 || square === 0)
    const stretch = Math.sqrt((-2 * Math.log(square)) / square)
    spare = y * stretch
    return x * stretch
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
  const normal = normalSource(seededRandom(seed).next)
  const noisy = (Object.keys(variances) as InputId[]).filter((input) => (variances[input] ?? 0) > 0)
  const access = noisy.map((input) => INPUTS[input])
  const spreads = Float64Array.from(noisy, (input) => Math.sqrt(variances[input] ?? 0))
  const means = Float64Array.from(noisy, (input) => measures[input])
  const drawn: Measures = { ...measures }
  const percents = new Float64Array(draws)
  // Far from every edge of the equation the checks of each draw can be left out.
  const percentAt = isFarFromEdges(equation, measures, noisy, spreads)
    ? unchecked(equation, settings)
    : checked(equation, settings)
  let answered = 0
  let sum = 0
  for (let draw = 0; draw < draws; draw += 1) {
    for (let i = 0; i < noisy.length; i += 1) {
      access[i]?.set(drawn, (means[i] ?? 0) + normal() * (spreads[i] ?? 0))
    }
    const percent = percentAt(drawn)
    if (!(percent >= 0 && percent <= 75)) continue
    percents[answered] = percent
    sum += percent
    answered += 1
  }
  return summary(percents.subarray(0, answered), sum / answered, answered)
}

function checked(equation: Equation, settings: EstimateSettings): (measures: Measures) => number {
  return (measures) => {
    const result = compute(equation, measures, settings)
    return 'percent' in result ? result.percent : NaN
  }
}

function unchecked(equation: Equation, { person, conversion, options = NO_OPTIONS }: EstimateSettings) {
  const { formula } = equation
  const { sex } = person
  if (equation.gives === 'percent') return (measures: Measures) => formula(measures, sex, options)
  const { a, b } = conversionOf(conversion)
  return (measures: Measures) => a / formula(measures, sex, options) - b
}

/** Eight standard errors from zero and from the vertex: no draw of any size used here gets there. */
function isFarFromEdges(equation: Equation, measures: Measures, noisy: InputId[], spreads: Float64Array): boolean {
  if (equation.positive || !noisy.every((input, i) => measures[input] > 8 * (spreads[i] ?? 0))) return false
  if (!equation.vertex) return true
  const { of, at } = equation.vertex
  const total = Math.sqrt(spreads.reduce((sum, spread) => sum + spread ** 2, 0))
  const value = of === 'sum' ? (equation.sum?.(measures) ?? 0) : measures[of]
  return value + 8 * total < at
}

function summary(percents: Float64Array, mean: number, answered: number): MonteCarlo {
  let squares = 0
  for (const percent of percents) squares += (percent - mean) ** 2
  return {
    mean,
    standardDeviation: Math.sqrt(squares / (answered - 1)),
    interval: { low: quantileOf(percents, 0.025), high: quantileOf(percents, 0.975) },
    answered,
  }
}
