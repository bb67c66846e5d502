import { compute } from './estimate'
import type { ConversionId } from './density'
import type { Equation, Measures, Sex } from './equation'

/** A wall chart: percent fat by sum of folds and age. */
export interface PocketChart {
  /** Age in completed years of each column; one column `null` where the equation takes no age. */
  ages: (number | null)[]
  /** Sum in mm of each row. */
  sums: number[]
  /** Percent by row and column; null where the equation refuses. */
  percents: (number | null)[][]
}

const AGE_STEP = 5
const ROWS = 25

/** True for equations that need a sum of folds and at most the age: those a chart on a wall can hold. */
export function fitsPocketChart(equation: Equation): boolean {
  const { inputs, summed, sum, gives } = equation
  if (!sum || gives !== 'density') return false
  return inputs.every((input) => input === 'age' || summed.some((site) => site === input))
}

function agesOf({ ages, inputs }: Equation): (number | null)[] {
  if (!inputs.includes('age')) return [null]
  const low = ages?.low ?? 18
  const high = Math.min(ages?.high ?? 80, 80)
  const first = Math.ceil((low + 2) / AGE_STEP) * AGE_STEP
  // No column stands within two years of an end of the sample.
  const inner = Array.from({ length: Math.floor((high - 2 - first) / AGE_STEP) + 1 }, (_, i) => first + i * AGE_STEP)
  return [...new Set([low, ...inner, high])].sort((a, b) => a - b)
}

/** Rows that cover a lean to a large sum for this many folds, in steps that can be read off: 2, 5 or 10 mm. */
function sumsOf({ summed, vertex, sums }: Equation): number[] {
  const least = sums?.low ?? 5 * summed.length
  const most = Math.min(sums?.high ?? 30 * summed.length, (vertex?.at ?? Infinity) - 1)
  const step = [2, 5, 10].find((size) => (most - least) / size <= ROWS) ?? 10
  const low = Math.ceil(least / step) * step
  return Array.from({ length: Math.floor((most - low) / step) + 1 }, (_, i) => low + i * step)
}

/**
 * Percent fat by sum and age, for an equation that fits a pocket chart. Only the sum matters, so it is spread evenly
 * over the folds.
 */
export function pocketChart(equation: Equation, sex: Sex, conversion: ConversionId): PocketChart {
  const ages = agesOf(equation)
  const sums = sumsOf(equation)
  const settings = { person: { sex }, conversion }
  const percents = sums.map((sum) => {
    const folds = Object.fromEntries(equation.summed.map((site) => [site, sum / equation.summed.length]))
    return ages.map((age) => {
      const result = compute(equation, { ...folds, ...(age === null ? {} : { age }) } as Measures, settings)
      return 'percent' in result ? result.percent : null
    })
  })
  return { ages, sums, percents }
}
