import type { FoldSiteId } from '../../sites'
import { NO_SEE, see, type Equation, type Measures, type Sex } from '../equation'

interface Linear {
  id: string
  label: string
  sex: Sex
  sample: string
  summed: readonly FoldSiteId[]
  sum: (measures: Measures) => number
  source: string
  slope: number
  intercept: number
}

const SEVEN = [
  'triceps-kin',
  'subscapular',
  'biceps-kin',
  'supraspinale',
  'abdominal-5cm',
  'front-thigh',
  'medial-calf',
] as const
const SIX = ['triceps-kin', 'subscapular', 'supraspinale', 'abdominal-5cm', 'front-thigh', 'medial-calf'] as const
const WOMEN_4 = ['triceps-kin', 'subscapular', 'supraspinale', 'medial-calf'] as const
const SWIMMERS_4 = ['triceps-kin', 'subscapular', 'supraspinale', 'abdominal-5cm'] as const

const sumOfSeven = (m: Measures) =>
  m['triceps-kin'] +
  m.subscapular +
  m['biceps-kin'] +
  m.supraspinale +
  m['abdominal-5cm'] +
  m['front-thigh'] +
  m['medial-calf']
const sumOfSix = (m: Measures) =>
  m['triceps-kin'] + m.subscapular + m.supraspinale + m['abdominal-5cm'] + m['front-thigh'] + m['medial-calf']
const sumOfWomen4 = (m: Measures) => m['triceps-kin'] + m.subscapular + m.supraspinale + m['medial-calf']
const sumOfSwimmers4 = (m: Measures) => m['triceps-kin'] + m.subscapular + m.supraspinale + m['abdominal-5cm']

/** percent = slope S + intercept. */
function percentFromSum({ slope, intercept, ...entry }: Linear): Equation {
  return {
    ...entry,
    ages: null,
    population: 'athletes',
    inputs: entry.summed,
    sums: null,
    gives: 'percent',
    seePercent: NO_SEE,
    vertex: null,
    expression: `${slope} S + ${intercept}`,
    formula: (measures) => slope * entry.sum(measures) + intercept,
  }
}

const YUHASZ = 'Yuhasz 1974, Carter 1982 (recalled)'

/** Equations made on athletes with kinanthropometry sites. Recalled, not re-read in the papers. */
export const ATHLETES: readonly Equation[] = [
  {
    id: 'withers-7-men',
    label: 'Withers, seven folds, male athletes',
    sex: 'male',
    ages: null,
    population: 'athletes',
    sample: 'Male athletes',
    inputs: SEVEN,
    summed: SEVEN,
    sum: sumOfSeven,
    sums: null,
    gives: 'density',
    // 0.0058 g/mL, as percent points at a density near 1.07: 495 / D^2 x SEE.
    seePercent: see(2.5),
    source: 'Withers et al. 1987, Eur J Appl Physiol 56:191',
    vertex: null,
    expression: '1.0988 - 0.0004 S',
    formula: (measures) => 1.0988 - 0.0004 * sumOfSeven(measures),
  },
  {
    id: 'withers-4-women',
    label: 'Withers, four folds, female athletes',
    sex: 'female',
    ages: null,
    population: 'athletes',
    sample: 'Female athletes',
    inputs: WOMEN_4,
    summed: WOMEN_4,
    sum: sumOfWomen4,
    sums: null,
    gives: 'density',
    seePercent: NO_SEE,
    source: 'Withers et al. 1987, Eur J Appl Physiol 56:169',
    vertex: null,
    expression: '1.17484 - 0.07229 log10(S)',
    formula: (measures) => 1.17484 - 0.07229 * Math.log10(sumOfWomen4(measures)),
  },
  percentFromSum({
    id: 'yuhasz-men',
    label: 'Yuhasz, six folds, men',
    sex: 'male',
    sample: 'Male athletes and young adults',
    summed: SIX,
    sum: sumOfSix,
    source: YUHASZ,
    slope: 0.1051,
    intercept: 2.585,
  }),
  percentFromSum({
    id: 'yuhasz-women',
    label: 'Yuhasz, six folds, women',
    sex: 'female',
    sample: 'Female athletes and young adults',
    summed: SIX,
    sum: sumOfSix,
    source: YUHASZ,
    slope: 0.1548,
    intercept: 3.58,
  }),
  percentFromSum({
    id: 'faulkner-men',
    label: 'Faulkner, four folds, male swimmers',
    sex: 'male',
    sample: 'Male swimmers',
    summed: SWIMMERS_4,
    sum: sumOfSwimmers4,
    source: 'Faulkner 1968 (recalled)',
    slope: 0.153,
    intercept: 5.783,
  }),
]
