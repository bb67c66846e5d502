import { CM_PER_INCH } from '../../units'
import { see, type Equation } from '../equation'

const INCHES = 'Hodgdon & Beckett 1984, in the inch form of military tape instructions'
const CENTIMETRES = 'Hodgdon & Beckett 1984, Naval Health Research Center reports 84-11 and 84-29'

const men = {
  sex: 'male',
  ages: null,
  population: 'general',
  sample: 'Navy men',
  inputs: ['neck', 'abdomen', 'height'],
  summed: [],
  sum: null,
  sums: null,
  seePercent: see(3.5),
  vertex: null,
  positive: [
    { of: ({ abdomen, neck }) => abdomen - neck, sentence: 'The neck is larger than the abdomen: measure both again.' },
  ],
} as const satisfies Partial<Equation>

const women = {
  sex: 'female',
  ages: null,
  population: 'general',
  sample: 'Navy women',
  inputs: ['neck', 'waist', 'hip', 'height'],
  summed: [],
  sum: null,
  sums: null,
  seePercent: see(3.7),
  vertex: null,
  positive: [
    {
      of: ({ waist, hip, neck }) => waist + hip - neck,
      sentence: 'The neck is larger than waist and hip together: measure them again.',
    },
  ],
} as const satisfies Partial<Equation>

const { log10 } = Math

/** Girths and height to percent or density. Recalled, not re-read; checked against common worked examples. */
export const NAVY_TAPE: readonly Equation[] = [
  {
    ...men,
    id: 'navy-tape-men',
    label: 'Navy tape, men',
    gives: 'percent',
    source: INCHES,
    expression: '86.010 log10((abdomen - neck) / 2.54) - 70.041 log10(height / 2.54) + 36.76',
    formula: ({ abdomen, neck, height }) =>
      86.01 * log10((abdomen - neck) / CM_PER_INCH) - 70.041 * log10(height / CM_PER_INCH) + 36.76,
  },
  {
    ...women,
    id: 'navy-tape-women',
    label: 'Navy tape, women',
    gives: 'percent',
    source: INCHES,
    expression: '163.205 log10((waist + hip - neck) / 2.54) - 97.684 log10(height / 2.54) - 78.387',
    formula: ({ waist, hip, neck, height }) =>
      163.205 * log10((waist + hip - neck) / CM_PER_INCH) - 97.684 * log10(height / CM_PER_INCH) - 78.387,
  },
  {
    ...men,
    id: 'hodgdon-beckett-men',
    label: 'Hodgdon-Beckett density, men',
    gives: 'density',
    source: CENTIMETRES,
    expression: '1.0324 - 0.19077 log10(abdomen - neck) + 0.15456 log10(height)',
    formula: ({ abdomen, neck, height }) => 1.0324 - 0.19077 * log10(abdomen - neck) + 0.15456 * log10(height),
  },
  {
    ...women,
    id: 'hodgdon-beckett-women',
    label: 'Hodgdon-Beckett density, women',
    gives: 'density',
    source: CENTIMETRES,
    expression: '1.29579 - 0.35004 log10(waist + hip - neck) + 0.22100 log10(height)',
    formula: ({ waist, hip, neck, height }) => 1.29579 - 0.35004 * log10(waist + hip - neck) + 0.221 * log10(height),
  },
]
