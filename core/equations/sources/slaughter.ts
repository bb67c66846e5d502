import { see, type Equation, type Measures, type Sex } from '../equation'

const SUMMED = ['triceps', 'medial-calf'] as const
const sum = (m: Measures) => m.triceps + m['medial-calf']

function fromLine(id: string, label: string, sex: Sex, slope: number, intercept: number): Equation {
  return {
    id,
    label,
    sex,
    ages: { low: 8, high: 17 },
    population: 'young',
    sample: `${sex === 'male' ? 'Boys' : 'Girls'} of 8 to 17 years`,
    inputs: SUMMED,
    summed: SUMMED,
    sum,
    sums: null,
    gives: 'percent',
    // 3.6 to 3.9 points in the paper's groups (recalled).
    seePercent: see(3.8),
    source: 'Slaughter et al. 1988, Hum Biol 60:709',
    vertex: null,
    expression: `${slope} S + ${intercept}`,
    formula: (measures) => slope * sum(measures) + intercept,
  }
}

/** Two folds to percent, children and juniors. Recalled, not re-read in the paper. */
export const SLAUGHTER: readonly Equation[] = [
  fromLine('slaughter-boys', 'Slaughter, two folds, boys', 'male', 0.735, 1),
  fromLine('slaughter-girls', 'Slaughter, two folds, girls', 'female', 0.61, 5.1),
]
