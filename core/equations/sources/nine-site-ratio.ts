import { NO_SEE, sumOf, type Equation } from '../equation'
import { pounds } from '../measures'

const NINE = [
  'chest',
  'subscapular',
  'biceps',
  'triceps',
  'lower-back',
  'suprailiac',
  'abdominal',
  'thigh',
  'medial-calf',
] as const

/** The number contest preparation follows: 27 S / lb. Common practice, no source; a tracking number. */
export const NINE_SITE_RATIO: readonly Equation[] = [
  {
    id: 'nine-site-ratio',
    label: 'Nine-fold ratio of contest preparation',
    sex: 'both',
    ages: null,
    population: 'tracking',
    sample: 'None: common practice in contest preparation',
    inputs: [...NINE, 'weight'],
    summed: NINE,
    sums: null,
    gives: 'percent',
    seePercent: NO_SEE,
    source: 'Common practice in contest preparation; no published source',
    vertex: null,
    expression: '27 S / lb',
    formula: (measures) => (27 * sumOf(NINE, measures)) / pounds(measures.weight),
  },
]
