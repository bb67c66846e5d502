import { CM_PER_INCH, kgToMass } from '../../units'
import { NO_SEE, type Equation } from '../equation'

const common = {
  ages: null,
  population: 'general',
  inputs: ['abdomen', 'weight'],
  summed: [],
  sum: null,
  sums: null,
  gives: 'percent',
  seePercent: NO_SEE,
  source: 'US Army directive 2023-11 (recalled)',
  vertex: null,
} as const

/** Abdomen and weight to percent. */
export const ONE_SITE_TAPE: readonly Equation[] = [
  {
    ...common,
    id: 'one-site-tape-men',
    label: 'One-site tape, men',
    sex: 'male',
    sample: 'Army men',
    expression: '-26.97 - 0.12 lb + 1.99 abdomen / 2.54',
    formula: ({ abdomen, weight }) => -26.97 - 0.12 * kgToMass(weight, 'lb') + (1.99 * abdomen) / CM_PER_INCH,
  },
  {
    ...common,
    id: 'one-site-tape-women',
    label: 'One-site tape, women',
    sex: 'female',
    sample: 'Army women',
    expression: '-9.15 - 0.015 lb + 1.27 abdomen / 2.54',
    formula: ({ abdomen, weight }) => -9.15 - 0.015 * kgToMass(weight, 'lb') + (1.27 * abdomen) / CM_PER_INCH,
  },
]
