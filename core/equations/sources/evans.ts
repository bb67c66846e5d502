import type { FoldSiteId } from '../../sites'
import { NO_SEE, type Equation, type Measures } from '../equation'

interface Entry {
  id: string
  label: string
  summed: readonly FoldSiteId[]
  sum: (measures: Measures) => number
  intercept: number
  slope: number
  men: number
  black: number
}

/** percent = intercept + slope S - men (for men) - black (term for Black athletes, off unless switched on). */
function fromEntry({ id, label, summed, sum, intercept, slope, men, black }: Entry): Equation {
  return {
    id,
    label,
    sex: 'both',
    ages: null,
    population: 'athletes',
    sample: 'Collegiate athletes of both sexes, four-component criterion',
    inputs: summed,
    summed,
    sum,
    sums: null,
    gives: 'percent',
    seePercent: NO_SEE,
    source: 'Evans et al. 2005, Med Sci Sports Exerc 37:2006',
    vertex: null,
    expression: `${intercept} + ${slope} S - ${men} (1 - s) - ${black} b`,
    formula: (measures, sex, { blackAthleteTerm }) =>
      intercept + slope * sum(measures) - (sex === 'male' ? men : 0) - (blackAthleteTerm ? black : 0),
  }
}

/** Three or seven folds to percent, collegiate athletes. Recalled, not re-read in the paper. */
export const EVANS: readonly Equation[] = [
  fromEntry({
    id: 'evans-7',
    label: 'Evans, seven folds, athletes',
    summed: ['chest', 'midaxillary', 'triceps', 'subscapular', 'abdominal', 'suprailiac', 'thigh'],
    sum: (m) => m.chest + m.midaxillary + m.triceps + m.subscapular + m.abdominal + m.suprailiac + m.thigh,
    intercept: 10.566,
    slope: 0.12077,
    men: 8.057,
    black: 2.545,
  }),
  fromEntry({
    id: 'evans-3',
    label: 'Evans, three folds, athletes',
    summed: ['abdominal', 'thigh', 'triceps'],
    sum: (m) => m.abdominal + m.thigh + m.triceps,
    intercept: 8.997,
    slope: 0.24658,
    men: 6.343,
    black: 1.998,
  }),
]
