import { NO_SEE, type Equation } from '../equation'

/** Two folds to density, young adults. Recalled, not re-read in the papers. */
export const SLOAN: readonly Equation[] = [
  {
    id: 'sloan-men',
    label: 'Sloan, two folds, young men',
    sex: 'male',
    ages: { low: 18, high: 26 },
    population: 'general',
    sample: 'Men of 18 to 26 years',
    inputs: ['thigh', 'subscapular'],
    summed: [],
    sums: null,
    gives: 'density',
    seePercent: NO_SEE,
    source: 'Sloan 1967, J Appl Physiol 23:311',
    vertex: null,
    expression: '1.1043 - 0.001327 thigh - 0.001310 subscapular',
    formula: ({ thigh, subscapular }) => 1.1043 - 0.001327 * thigh - 0.00131 * subscapular,
  },
  {
    id: 'sloan-women',
    label: 'Sloan, two folds, young women',
    sex: 'female',
    ages: { low: 17, high: 25 },
    population: 'general',
    sample: 'Women of 17 to 25 years',
    inputs: ['suprailiac', 'triceps'],
    summed: [],
    sums: null,
    gives: 'density',
    seePercent: NO_SEE,
    source: 'Sloan, Burt & Blyth 1962, J Appl Physiol 17:967',
    vertex: null,
    expression: '1.0764 - 0.00081 suprailiac - 0.00088 triceps',
    formula: ({ suprailiac, triceps }) => 1.0764 - 0.00081 * suprailiac - 0.00088 * triceps,
  },
]
