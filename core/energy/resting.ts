import type { Measured } from '../composition/end-figures'
import { ADULT_YEARS } from '../cautions'
import type { Sex } from '../equations/equation'

/** What resting expenditure is predicted from. kg, cm, completed years. */
export interface RestingFacts {
  sex: Sex
  ageYears: number
  heightCm: number | null
  weightKg: number
  /** Fat-free mass with the variance of its measuring and of the equation's level, kg and kg squared; null: not measured. */
  leanKg: Measured | null
  /** Trains as an athlete; left out or null: not on record. */
  athlete?: boolean | null
}

/** One published equation of resting expenditure. */
export interface RestingEquation {
  id: string
  label: string
  source: string
  sample: string
  /** Standard error of estimate, kcal a day (68 %); null: not known here. */
  seeKcal: number | null
  /** What it works on: lean mass, or size, age and sex. */
  on: 'lean' | 'size'
  /** The formula as printed: W kg, H cm, A years, FFM kg. */
  expression: Record<Sex, string>
  /** kcal a day; null where an input is missing. */
  kcal: (facts: RestingFacts) => number | null
}

function onSize(formula: (facts: RestingFacts & { heightCm: number }) => number): RestingEquation['kcal'] {
  return ({ heightCm, ...facts }) => (heightCm === null ? null : formula({ ...facts, heightCm }))
}

function onLean(base: number, perKg: number): RestingEquation['kcal'] {
  return ({ leanKg }) => (leanKg === null ? null : base + perKg * leanKg.value)
}

const both = (expression: string) => ({ female: expression, male: expression })

/** Resting expenditure by the equations in use. Coefficients recalled, not re-read in the papers. */
export const RESTING: readonly RestingEquation[] = [
  {
    id: 'cunningham',
    label: 'Cunningham 1980',
    source: 'Cunningham 1980, Am J Clin Nutr 33:2372',
    sample: '223 adults of the data of Harris and Benedict, athletes left out',
    seeKcal: null,
    on: 'lean',
    expression: both('500 + 22 FFM'),
    kcal: onLean(500, 22),
  },
  {
    id: 'cunningham-1991',
    label: 'Cunningham 1991',
    source: 'Cunningham 1991, Am J Clin Nutr 54:963',
    sample: 'Review of published studies of adults',
    seeKcal: null,
    on: 'lean',
    expression: both('370 + 21.6 FFM'),
    kcal: onLean(370, 21.6),
  },
  {
    id: 'ten-haaf',
    label: 'ten Haaf & Weijs',
    source: 'ten Haaf & Weijs 2014, PLoS ONE 9:e108460',
    sample: '90 recreational athletes of 18 to 35 years',
    seeKcal: null,
    on: 'lean',
    expression: both('484.264 + 22.771 FFM'),
    kcal: onLean(484.264, 22.771),
  },
  {
    id: 'mifflin-st-jeor',
    label: 'Mifflin-St Jeor',
    source: 'Mifflin et al. 1990, Am J Clin Nutr 51:241',
    sample: '498 healthy adults of 19 to 78 years',
    seeKcal: null,
    on: 'size',
    expression: { female: '10 W + 6.25 H - 5 A - 161', male: '10 W + 6.25 H - 5 A + 5' },
    kcal: onSize(
      ({ sex, weightKg, heightCm, ageYears }) =>
        10 * weightKg + 6.25 * heightCm - 5 * ageYears + (sex === 'male' ? 5 : -161),
    ),
  },
  {
    id: 'harris-benedict-revised',
    label: 'Harris-Benedict, revised',
    source: 'Roza & Shizgal 1984, Am J Clin Nutr 40:168',
    sample: '337 adults, those of Harris and Benedict among them',
    // Given as 95 % limits of 213 kcal (men) and 201 kcal (women), recalled: about 105 at 68 %.
    seeKcal: 105,
    on: 'size',
    expression: {
      female: '447.593 + 9.247 W + 3.098 H - 4.330 A',
      male: '88.362 + 13.397 W + 4.799 H - 5.677 A',
    },
    kcal: onSize(({ sex, weightKg, heightCm, ageYears }) =>
      sex === 'male'
        ? 88.362 + 13.397 * weightKg + 4.799 * heightCm - 5.677 * ageYears
        : 447.593 + 9.247 * weightKg + 3.098 * heightCm - 4.33 * ageYears,
    ),
  },
  {
    id: 'owen',
    label: 'Owen',
    source: 'Owen et al. 1986, Am J Clin Nutr 44:1 (women); 1987, 46:875 (men)',
    sample: '44 women, athletes apart; 60 men',
    seeKcal: null,
    on: 'size',
    expression: { female: '795 + 7.18 W', male: '879 + 10.2 W' },
    kcal: ({ sex, weightKg }) => (sex === 'male' ? 879 + 10.2 * weightKg : 795 + 7.18 * weightKg),
  },
]

/** What one equation says of a person. */
export interface RestingSaid {
  equation: RestingEquation
  kcal: number
}

/** Resting expenditure of a person by all equations that can be had, and the one figure that leads. */
export interface Resting {
  /** Those that lead first. */
  all: RestingSaid[]
  /** Mean of those that lead. kcal a day and its square. */
  lead: Measured
  /** Which lead: by id. */
  led: string[]
  /** Standard deviations, kcal a day: between the equations, by the measured lean mass, between people. */
  parts: { equations: number; lean: number; people: number }
}

/** Who is led by which: athletes by equations on lean mass, others by size and lean mass together (common practice). */
const LEADING = {
  athlete: ['cunningham', 'ten-haaf'],
  other: ['mifflin-st-jeor', 'cunningham-1991'],
} as const

/** How far people of the same size and lean mass scatter about any equation, as a share (assumed; common practice). */
const PEOPLE_SHARE = 0.08

/** kcal a kg of lean mass that the mean of some equations moves by. */
function perKgOf(leading: readonly RestingSaid[], facts: RestingFacts): number {
  const { leanKg } = facts
  if (!leanKg) return 0
  const more = { ...facts, leanKg: { ...leanKg, value: leanKg.value + 1 } }
  return leading.reduce((sum, { equation, kcal }) => sum + (equation.kcal(more) ?? kcal) - kcal, 0) / leading.length
}

/**
 * Resting expenditure by every equation that can be had. Athletes are led by Cunningham 1980 and ten Haaf, everybody else by
 * the mean of Mifflin-St Jeor and Cunningham 1991; without lean mass by Mifflin-St Jeor, without height by what is left. The
 * band holds the spread of the equations about it, the error of the lean mass, and the scatter of people.
 * @returns null where no equation can be had, and under 18: all of them were made on adults
 * @example a man of 30, 180 cm, 80 kg, nothing measured: Mifflin-St Jeor 1,780 kcal a day
 */
export function restingOf(facts: RestingFacts): Resting | null {
  if (facts.ageYears < ADULT_YEARS) return null
  const said = RESTING.flatMap((equation): RestingSaid[] => {
    const kcal = equation.kcal(facts)
    return kcal === null ? [] : [{ equation, kcal }]
  })
  const wanted: readonly string[] = LEADING[facts.athlete === true ? 'athlete' : 'other']
  const own = said.filter(({ equation }) => wanted.includes(equation.id))
  const sized = said.filter(({ equation }) => equation.id === 'mifflin-st-jeor')
  const leading = own.length > 0 ? own : sized.length > 0 ? sized : said
  if (leading.length === 0) return null
  const value = leading.reduce((sum, { kcal }) => sum + kcal, 0) / leading.length
  // Size says little of an athlete: the spread is of those on lean mass, where there are any.
  const kin = facts.athlete === true && facts.leanKg ? said.filter(({ equation }) => equation.on === 'lean') : said
  const between = kin.length > 1 ? kin.reduce((sum, { kcal }) => sum + (kcal - value) ** 2, 0) / (kin.length - 1) : 0
  const lean = perKgOf(leading, facts) * Math.sqrt(facts.leanKg?.variance ?? 0)
  const people = PEOPLE_SHARE * value
  return {
    all: [...leading, ...said.filter((one) => !leading.includes(one))],
    lead: { value, variance: between + lean ** 2 + people ** 2 },
    led: leading.map(({ equation }) => equation.id),
    parts: { equations: Math.sqrt(between), lean, people },
  }
}
