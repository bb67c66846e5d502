import type { FoldSiteId } from '../../sites'
import { NO_SEE, see, type Equation, type Measures, type Sex } from '../equation'

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
  sum: (measures: Measures) => number
  sums: Equation['sums']
  seePercent: Equation['seePercent']
  source: string
  parabola: Parabola
}

const SEVEN = ['chest', 'midaxillary', 'triceps', 'subscapular', 'abdominal', 'suprailiac', 'thigh'] as const

const sumOfSeven = (m: Measures) =>
  m.chest + m.midaxillary + m.triceps + m.subscapular + m.abdominal + m.suprailiac + m.thigh

const MEN_1978 = 'Jackson & Pollock 1978, Br J Nutr 40:497'
const WOMEN_1980 = 'Jackson, Pollock & Ward 1980, Med Sci Sports Exerc 12:175'
const BOTH_1985 = 'Jackson & Pollock 1985, Phys Sportsmed 13:76'

const AGES = { male: { low: 18, high: 61 }, female: { low: 18, high: 55 } } as const

/** Coefficients and sums recalled, not re-read in the papers; checked against the worked examples in the tests. */
const ENTRIES: readonly Entry[] = [
  {
    id: 'jackson-pollock-7-men',
    label: 'Jackson-Pollock, seven folds, men',
    sex: 'male',
    summed: SEVEN,
    sum: sumOfSeven,
    sums: { low: 32, high: 272 },
    seePercent: see(3.5),
    source: MEN_1978,
    parabola: { intercept: 1.112, linear: 0.00043499, square: 0.00000055, age: 0.00028826 },
  },
  {
    id: 'jackson-pollock-3-men',
    label: 'Jackson-Pollock, three folds, men',
    sex: 'male',
    summed: ['chest', 'abdominal', 'thigh'],
    sum: (m) => m.chest + m.abdominal + m.thigh,
    sums: { low: 10, high: 118 },
    seePercent: see(3.4),
    source: MEN_1978,
    parabola: { intercept: 1.10938, linear: 0.0008267, square: 0.0000016, age: 0.0002574 },
  },
  {
    id: 'jackson-pollock-3-men-upper',
    label: 'Jackson-Pollock, three folds of the upper body, men',
    sex: 'male',
    summed: ['chest', 'triceps', 'subscapular'],
    sum: (m) => m.chest + m.triceps + m.subscapular,
    sums: null,
    seePercent: NO_SEE,
    source: BOTH_1985,
    parabola: { intercept: 1.1125025, linear: 0.0013125, square: 0.0000055, age: 0.000244 },
  },
  {
    id: 'jackson-pollock-7-women',
    label: 'Jackson-Pollock, seven folds, women',
    sex: 'female',
    summed: SEVEN,
    sum: sumOfSeven,
    sums: { low: 35, high: 266 },
    seePercent: see(3.8),
    source: WOMEN_1980,
    parabola: { intercept: 1.097, linear: 0.00046971, square: 0.00000056, age: 0.00012828 },
  },
  {
    id: 'jackson-pollock-3-women',
    label: 'Jackson-Pollock, three folds, women',
    sex: 'female',
    summed: ['triceps', 'suprailiac', 'thigh'],
    sum: (m) => m.triceps + m.suprailiac + m.thigh,
    sums: { low: 16, high: 126 },
    seePercent: see(3.9),
    source: WOMEN_1980,
    parabola: { intercept: 1.0994921, linear: 0.0009929, square: 0.0000023, age: 0.0001392 },
  },
  {
    id: 'jackson-pollock-3-women-trunk',
    label: 'Jackson-Pollock, three folds without the thigh, women',
    sex: 'female',
    summed: ['triceps', 'suprailiac', 'abdominal'],
    sum: (m) => m.triceps + m.suprailiac + m.abdominal,
    sums: null,
    seePercent: NO_SEE,
    source: BOTH_1985,
    parabola: { intercept: 1.089733, linear: 0.0009245, square: 0.0000025, age: 0.0000979 },
  },
  {
    id: 'jackson-pollock-4-women',
    label: 'Jackson-Pollock, four folds, women',
    sex: 'female',
    summed: ['triceps', 'abdominal', 'suprailiac', 'thigh'],
    sum: (m) => m.triceps + m.abdominal + m.suprailiac + m.thigh,
    sums: null,
    seePercent: NO_SEE,
    source: WOMEN_1980,
    parabola: { intercept: 1.096095, linear: 0.0006952, square: 0.0000011, age: 0.0000714 },
  },
]

/** The sum in mm where a - bS + cS^2 turns: b / 2c. */
function turningPoint({ linear, square }: Parabola): number {
  return linear / (2 * square)
}

/** A small coefficient as printed, without an exponent: "0.00000055". */
function printed(value: number): string {
  return value.toFixed(10).replace(/0+$/, '')
}

function fromParabola({ parabola, ...entry }: Entry): Equation {
  const { intercept, linear, square, age } = parabola
  const { summed, sex, sum } = entry
  const ages = AGES[sex]
  return {
    ...entry,
    ages,
    population: 'general',
    sample: `${sex === 'male' ? 'Men' : 'Women'} of ${ages.low} to ${ages.high} years`,
    inputs: [...summed, 'age'],
    gives: 'density',
    vertex: { of: 'sum', at: turningPoint(parabola) },
    expression: `${intercept} - ${printed(linear)} S + ${printed(square)} S^2 - ${printed(age)} age`,
    formula(measures: Measures): number {
      const s = sum(measures)
      return intercept - linear * s + square * s * s - age * measures.age
    },
  }
}

/** The generalized Jackson-Pollock equations: body density from a sum of folds and age. */
export const JACKSON_POLLOCK: readonly Equation[] = ENTRIES.map(fromParabola)
