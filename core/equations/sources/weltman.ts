import { NO_SEE, see, type Equation, type FormulaOptions, type Measures } from '../equation'

const noFolds = { summed: [], sum: null, sums: null } as const

/** Said beside these equations: practice takes the navel alone (common practice), the mean where the coach chose it. */
const TWO_LEVELS = ({ abdomenOfTwo }: FormulaOptions) =>
  `In the papers the abdomen is the mean of two levels, half way from xiphoid to navel and at the navel; here it is ${
    abdomenOfTwo ? 'that mean, of waist and abdomen' : 'the navel alone'
  }.`

/** The abdomen as it is chosen: at the navel, or the mean of two levels where both were taken. cm. */
function levelOf({ abdomen, waist }: Measures, { abdomenOfTwo }: FormulaOptions): number {
  // A waist that was not taken is no number.
  return abdomenOfTwo && waist > 0 ? (waist + abdomen) / 2 : abdomen
}
const twoLevels = { note: TWO_LEVELS, optional: ['waist'] } as const

/** Girth equations of Tran, Weltman and co-workers. Recalled, not re-read in the papers. */
export const WELTMAN: readonly Equation[] = [
  {
    ...noFolds,
    id: 'tran-weltman-men',
    label: 'Tran-Weltman, girths, men',
    sex: 'male',
    ages: { low: 21, high: 78 },
    population: 'general',
    sample: 'Men of 21 to 78 years',
    ...twoLevels,
    inputs: ['abdomen', 'hip', 'iliac', 'weight'],
    gives: 'percent',
    seePercent: see(3.6),
    source: 'Tran & Weltman 1988, Hum Biol 60:167',
    vertex: null,
    expression: '-47.371817 + 0.57914807 abdomen + 0.25189114 hip + 0.21366088 iliac - 0.35595404 weight',
    formula: (measures, _, options) =>
      -47.371817 +
      0.57914807 * levelOf(measures, options) +
      0.25189114 * measures.hip +
      0.21366088 * measures.iliac -
      0.35595404 * measures.weight,
  },
  {
    ...noFolds,
    id: 'tran-weltman-women',
    label: 'Tran-Weltman, girths, women',
    sex: 'female',
    ages: { low: 15, high: 79 },
    population: 'general',
    sample: 'Women of 15 to 79 years',
    ...twoLevels,
    inputs: ['abdomen', 'hip', 'height', 'age'],
    gives: 'density',
    seePercent: NO_SEE,
    source: 'Tran & Weltman 1989, Med Sci Sports Exerc 21:101',
    vertex: { of: 'abdomen', at: 0.002824 / (2 * 0.0000122098) },
    expression:
      '1.168297 - 0.002824 abdomen + 0.0000122098 abdomen^2 - 0.000733128 hip + 0.000510477 height - 0.000216161 age',
    formula: (measures, _, options) => {
      const abdomen = levelOf(measures, options)
      const { hip, height, age } = measures
      return (
        1.168297 -
        0.002824 * abdomen +
        0.0000122098 * abdomen * abdomen -
        0.000733128 * hip +
        0.000510477 * height -
        0.000216161 * age
      )
    },
  },
  {
    ...noFolds,
    id: 'weltman-obese-men',
    label: 'Weltman, obese men',
    sex: 'male',
    ages: { low: 24, high: 68 },
    population: 'obese',
    sample: 'Obese men of 24 to 68 years',
    ...twoLevels,
    inputs: ['abdomen', 'weight'],
    gives: 'percent',
    seePercent: NO_SEE,
    source: 'Weltman et al. 1987 (recalled)',
    vertex: null,
    expression: '0.31457 abdomen - 0.10969 weight + 10.8336',
    formula: (measures, _, options) => 0.31457 * levelOf(measures, options) - 0.10969 * measures.weight + 10.8336,
  },
  {
    ...noFolds,
    id: 'weltman-obese-women',
    label: 'Weltman, obese women',
    sex: 'female',
    ages: { low: 20, high: 60 },
    population: 'obese',
    sample: 'Obese women of 20 to 60 years',
    ...twoLevels,
    inputs: ['abdomen', 'height', 'weight'],
    gives: 'percent',
    seePercent: NO_SEE,
    source: 'Weltman et al. 1988 (recalled)',
    vertex: null,
    expression: '0.11077 abdomen - 0.17666 height + 0.14354 weight + 51.03301',
    formula: (measures, _, options) =>
      0.11077 * levelOf(measures, options) - 0.17666 * measures.height + 0.14354 * measures.weight + 51.03301,
  },
]
