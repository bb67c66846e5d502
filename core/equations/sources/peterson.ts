import { NO_SEE, type Equation, type Measures } from '../equation'
import { bmi } from '../measures'

const SUMMED = ['triceps', 'subscapular', 'suprailiac', 'thigh'] as const
const sum = (m: Measures) => m.triceps + m.subscapular + m.suprailiac + m.thigh
const SOURCE = 'Peterson et al. 2003, Am J Clin Nutr 77:1186'

const common = {
  ages: { low: 18, high: 55 },
  population: 'general',
  summed: SUMMED,
  sum,
  sums: null,
  gives: 'percent',
  seePercent: NO_SEE,
  source: SOURCE,
} as const

/** Four folds, age and height to percent, four-component criterion. Recalled, not re-read in the paper. */
export const PETERSON: readonly Equation[] = [
  {
    ...common,
    id: 'peterson-men',
    label: 'Peterson, four folds, men',
    sex: 'male',
    sample: 'Men, four-component criterion',
    inputs: [...SUMMED, 'age', 'height'],
    vertex: { of: 'sum', at: 0.42696 / (2 * 0.00159) },
    expression: '20.94878 + 0.1166 age - 0.11666 height + 0.42696 S - 0.00159 S^2',
    formula(measures) {
      const s = sum(measures)
      return 20.94878 + 0.1166 * measures.age - 0.11666 * measures.height + 0.42696 * s - 0.00159 * s * s
    },
  },
  {
    ...common,
    id: 'peterson-women',
    label: 'Peterson, four folds, women',
    sex: 'female',
    sample: 'Women, four-component criterion',
    inputs: [...SUMMED, 'age', 'height', 'weight'],
    vertex: { of: 'sum', at: 0.30919 / (2 * 0.00099562) },
    expression: '22.18945 + 0.06368 age + 0.60404 BMI - 0.14520 height + 0.30919 S - 0.00099562 S^2',
    formula(measures) {
      const s = sum(measures)
      return (
        22.18945 +
        0.06368 * measures.age +
        0.60404 * bmi(measures.weight, measures.height) -
        0.1452 * measures.height +
        0.30919 * s -
        0.00099562 * s * s
      )
    },
  },
]
