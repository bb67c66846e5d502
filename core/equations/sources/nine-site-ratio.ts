import { NO_SEE, type Equation, type Measures } from '../equation'
import { kgToMass } from '../../units'

const NINE = [
  'chest',
  'subscapular',
  'biceps-kin',
  'triceps',
  'lower-back',
  'suprailiac',
  'abdominal',
  'thigh',
  'medial-calf',
] as const

const sum = (m: Measures) =>
  m.chest +
  m.subscapular +
  m['biceps-kin'] +
  m.triceps +
  m['lower-back'] +
  m.suprailiac +
  m.abdominal +
  m.thigh +
  m['medial-calf']

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
    sum,
    sums: null,
    gives: 'percent',
    seePercent: NO_SEE,
    source: 'Common practice in contest preparation; no published source',
    vertex: null,
    expression: '27 S / lb',
    formula: (measures) => (27 * sum(measures)) / kgToMass(measures.weight, 'lb'),
  },
]
