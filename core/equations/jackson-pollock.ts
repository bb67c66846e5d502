import type { FoldSiteId } from '../sites'
import type { Equation, Measures, Sex } from './equation'

/** density = intercept - linear S + square S^2 - age x age in years, S in mm. */
interface Parabola {
  intercept: number
  linear: number
  square: number
  age: number
}

interface Entry {
  id: string
  label: string
  sex: Sex
  summed: readonly FoldSiteId[]
  ages: { low: number; high: number }
  seePercent: number
  source: string
  parabola: Parabola
}

const SEVEN = ['chest', 'midaxillary', 'triceps', 'subscapular', 'abdominal', 'suprailiac', 'thigh'] as const

const MEN = 'Jackson & Pollock 1978, Br J Nutr 40:497'
const WOMEN = 'Jackson, Pollock & Ward 1980, Med Sci Sports Exerc 12:175'

/** Coefficients recalled, not re-read in the papers; checked against the worked examples in the tests. */
const ENTRIES: readonly Entry[] = [
  {
    id: 'jackson-pollock-7-men',
    label: 'Jackson-Pollock, seven folds, men',
    sex: 'male',
    summed: SEVEN,
    ages: { low: 18, high: 61 },
    seePercent: 3.5,
    source: MEN,
    parabola: { intercept: 1.112, linear: 0.00043499, square: 0.00000055, age: 0.00028826 },
  },
  {
    id: 'jackson-pollock-7-women',
    label: 'Jackson-Pollock, seven folds, women',
    sex: 'female',
    summed: SEVEN,
    ages: { low: 18, high: 55 },
    seePercent: 3.8,
    source: WOMEN,
    parabola: { intercept: 1.097, linear: 0.00046971, square: 0.00000056, age: 0.00012828 },
  },
]

/** The sum in mm where a - bS + cS^2 turns: b / 2c. */
function turningPoint({ linear, square }: Parabola): number {
  return linear / (2 * square)
}

function fromParabola(entry: Entry): Equation {
  const { parabola, summed } = entry
  return {
    ...entry,
    sample: `${entry.sex === 'male' ? 'Men' : 'Women'} ${entry.ages.low}-${entry.ages.high} years`,
    inputs: [...summed, 'age'],
    gives: 'density',
    vertex: { of: 'sum', at: turningPoint(parabola) },
    formula(measures: Measures): number {
      let sum = 0
      for (const site of summed) sum += measures[site]
      return parabola.intercept - parabola.linear * sum + parabola.square * sum * sum - parabola.age * measures.age
    },
  }
}

/** The generalized Jackson-Pollock equations: body density from a sum of folds and age. */
export const JACKSON_POLLOCK: readonly Equation[] = ENTRIES.map(fromParabola)
