import { ADULTS, NO_SEE, see, type Equation } from '../equation'
import { bmi } from '../measures'

const common = {
  sex: 'both',
  ages: ADULTS,
  population: 'general',
  summed: [],
  sum: null,
  sums: null,
  gives: 'percent',
  vertex: null,
  sizeOnly: true,
} as const

/** Percent fat from indexes of size alone. Recalled, not re-read in the papers. */
export const INDEXES: readonly Equation[] = [
  {
    ...common,
    id: 'relative-fat-mass',
    label: 'Relative fat mass',
    sample: 'Adults; waist at the hip crests',
    inputs: ['iliac', 'height'],
    seePercent: NO_SEE,
    source: 'Woolcott & Bergman 2018, Sci Rep 8:10980',
    expression: '64 + 12 s - 20 height / iliac',
    formula: ({ iliac, height }, sex) => (sex === 'female' ? 76 : 64) - (20 * height) / iliac,
  },
  {
    ...common,
    id: 'body-adiposity-index',
    label: 'Body adiposity index',
    sample: 'Adults',
    inputs: ['hip', 'height'],
    seePercent: NO_SEE,
    source: 'Bergman et al. 2011 (recalled)',
    expression: 'hip / (height / 100)^1.5 - 18',
    formula: ({ hip, height }) => hip / (height / 100) ** 1.5 - 18,
  },
  {
    ...common,
    id: 'deurenberg',
    label: 'Deurenberg, from BMI and age',
    sample: 'Adults',
    inputs: ['weight', 'height', 'age'],
    seePercent: see(4.1),
    source: 'Deurenberg et al. 1991, Br J Nutr 65:105',
    expression: '1.2 BMI + 0.23 age - 10.8 (1 - s) - 5.4',
    formula: ({ weight, height, age }, sex) =>
      1.2 * bmi(weight, height) + 0.23 * age - (sex === 'male' ? 10.8 : 0) - 5.4,
  },
  {
    ...common,
    id: 'cun-bae',
    label: 'CUN-BAE, from BMI and age',
    sample: 'Adults',
    inputs: ['weight', 'height', 'age'],
    seePercent: NO_SEE,
    source: 'Gomez-Ambrosi et al. 2012 (recalled)',
    expression:
      '-44.988 + 0.503 age + 10.689 s + 3.172 BMI - 0.026 BMI^2 + 0.181 BMI s - 0.02 BMI age - 0.005 BMI^2 s + 0.00021 BMI^2 age',
    formula({ weight, height, age }, sex) {
      const s = sex === 'female' ? 1 : 0
      const index = bmi(weight, height)
      const square = index * index
      return (
        -44.988 +
        0.503 * age +
        10.689 * s +
        3.172 * index -
        0.026 * square +
        0.181 * index * s -
        0.02 * index * age -
        0.005 * square * s +
        0.00021 * square * age
      )
    },
  },
]
