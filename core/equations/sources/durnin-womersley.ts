import type { Equation, Measures, Sex } from '../equation'

/** Constants from this age on, completed years: density = c - m log10 S. */
interface Band {
  from: number
  c: number
  m: number
}

/** Durnin & Womersley's table by sex and age, youngest first. Recalled, not re-read in the paper. */
export const DURNIN_WOMERSLEY_TABLE: Readonly<Record<Sex, readonly Band[]>> = {
  male: [
    { from: 0, c: 1.162, m: 0.063 },
    { from: 20, c: 1.1631, m: 0.0632 },
    { from: 30, c: 1.1422, m: 0.0544 },
    { from: 40, c: 1.162, m: 0.07 },
    { from: 50, c: 1.1715, m: 0.0779 },
  ],
  female: [
    { from: 0, c: 1.1549, m: 0.0678 },
    { from: 20, c: 1.1599, m: 0.0717 },
    { from: 30, c: 1.1423, m: 0.0632 },
    { from: 40, c: 1.1333, m: 0.0612 },
    { from: 50, c: 1.1339, m: 0.0645 },
  ],
}

const SUMMED = ['biceps-kin', 'triceps', 'subscapular', 'iliac-crest'] as const

const sum = (m: Measures) => m['biceps-kin'] + m.triceps + m.subscapular + m['iliac-crest']

function bandOf(sex: Sex, age: number): Band {
  const bands = DURNIN_WOMERSLEY_TABLE[sex]
  return bands.findLast(({ from }) => age >= from) ?? { from: 0, c: NaN, m: NaN }
}

/** Four folds to density, with constants by sex and age. */
export const DURNIN_WOMERSLEY: readonly Equation[] = [
  {
    id: 'durnin-womersley',
    label: 'Durnin-Womersley, four folds',
    sex: 'both',
    ages: { low: 16, high: 72 },
    agesBySex: { male: { low: 17, high: 72 }, female: { low: 16, high: 68 } },
    population: 'general',
    sample: 'Men of 17 to 72 and women of 16 to 68 years',
    inputs: [...SUMMED, 'age'],
    summed: SUMMED,
    sum,
    sums: null,
    gives: 'density',
    // 0.008 and 0.011 g/mL, as percent points at a density near 1.05: 495 / D^2 x SEE.
    seePercent: { male: 3.6, female: 5 },
    source: 'Durnin & Womersley 1974, Br J Nutr 32:77',
    vertex: null,
    expression: 'c - m log10(S), with c and m by sex and age',
    formula(measures, sex) {
      const { c, m } = bandOf(sex, measures.age)
      return c - m * Math.log10(sum(measures))
    },
  },
]
