import type { Sex } from '../equations/equation'

/** What a table classifies. */
export type NormOf =
  | 'percent'
  | 'bmi'
  /** The narrowest waist, and the one half way between rib and hip crest. */
  | 'waist'
  | 'waist-mid'
  | 'waist-to-hip'
  | 'waist-mid-to-hip'
  | 'waist-to-height'

/** One class of a table: from `low` (included) to below `high`. */
export interface NormBand {
  name: string
  low: number
  high: number
}

/** A named table of where people stand. A coach chooses; no table judges. */
export interface NormTable {
  id: string
  name: string
  of: NormOf
  unit: '%' | 'kg/m²' | 'cm' | ''
  source: string
  /** Bands for a person, lowest first; empty where the table says nothing about them. */
  bands: (sex: Sex, ageYears: number) => readonly NormBand[]
  /** Said beside it. */
  note?: string
}

function bands(...steps: (readonly [string, number])[]): NormBand[] {
  return steps.map(([name, low], i) => ({ name, low, high: steps[i + 1]?.[1] ?? Infinity }))
}

const INDUSTRY: Record<Sex, NormBand[]> = {
  male: bands(['below essential', 0], ['essential', 2], ['athletic', 6], ['fit', 14], ['average', 18], ['high', 25]),
  female: bands(
    ['below essential', 0],
    ['essential', 10],
    ['athletic', 14],
    ['fit', 21],
    ['average', 25],
    ['high', 32],
  ),
}

function healthy(low: number, high: number): NormBand[] {
  return bands(['below the range', 0], ['in the range', low], ['above the range', high])
}

/** Tables made on adults say nothing about anybody under 18. */
function adult(ageYears: number, own: NormBand[]): readonly NormBand[] {
  return ageYears < 18 ? [] : own
}

const GALLAGHER: Record<Sex, readonly { from: number; to: number; low: number; high: number; upper: number }[]> = {
  female: [
    { from: 20, to: 39, low: 21, high: 33, upper: 39 },
    { from: 40, to: 59, low: 23, high: 34, upper: 40 },
    { from: 60, to: 79, low: 24, high: 36, upper: 42 },
  ],
  male: [
    { from: 20, to: 39, low: 8, high: 20, upper: 25 },
    { from: 40, to: 59, low: 11, high: 22, upper: 28 },
    { from: 60, to: 79, low: 13, high: 25, upper: 30 },
  ],
}

/** Every table. Figures recalled or common practice, as each says. */
export const NORM_TABLES: readonly NormTable[] = [
  {
    id: 'fitness-industry',
    name: 'Fitness industry',
    of: 'percent',
    unit: '%',
    source: 'Table in wide use in the fitness industry (common practice)',
    bands: (sex, ageYears) => adult(ageYears, INDUSTRY[sex]),
  },
  {
    id: 'healthy-wide',
    name: 'Healthy range in wide use',
    of: 'percent',
    unit: '%',
    source: 'Common practice',
    bands: (sex, ageYears) => adult(ageYears, sex === 'male' ? healthy(10, 20) : healthy(20, 32)),
  },
  {
    id: 'gallagher',
    name: 'Healthy range by age, with BMI anchors',
    of: 'percent',
    unit: '%',
    source: 'Gallagher et al. 2000, Am J Clin Nutr 72:694 (rounded as commonly reproduced; recalled)',
    bands(sex, ageYears) {
      const row = GALLAGHER[sex].find(({ from, to }) => ageYears >= from && ageYears <= to)
      return row
        ? bands(
            ['below the range', 0],
            ['in the range', row.low],
            ['above the range', row.high],
            ['far above the range', row.upper],
          )
        : []
    },
  },
  {
    id: 'who-bmi',
    name: 'BMI, WHO',
    of: 'bmi',
    unit: 'kg/m²',
    source: 'World Health Organization',
    bands: (_, ageYears) =>
      ageYears < 18
        ? []
        : bands(
            ['underweight', 0],
            ['normal range', 18.5],
            ['overweight', 25],
            ['obese I', 30],
            ['obese II', 35],
            ['obese III', 40],
          ),
    note: 'Not for muscular people: read it beside the fat-free mass index.',
  },
  {
    id: 'waist-industry',
    name: 'Waist, fitness industry',
    of: 'waist',
    unit: 'cm',
    source: 'Table in wide use in the fitness industry (common practice)',
    bands: (sex, ageYears) =>
      adult(
        ageYears,
        sex === 'male'
          ? bands(['low', 0], ['middle', 80], ['at risk', 102])
          : bands(['low', 0], ['middle', 70], ['at risk', 88]),
      ),
  },
  {
    id: 'waist-who',
    name: 'Waist, WHO 2008',
    of: 'waist-mid',
    unit: 'cm',
    source: 'World Health Organization 2008, expert consultation on waist (recalled)',
    bands: (sex, ageYears) =>
      adult(
        ageYears,
        sex === 'male'
          ? bands(['not raised', 0], ['risk raised', 94], ['much raised', 102])
          : bands(['not raised', 0], ['risk raised', 80], ['much raised', 88]),
      ),
  },
  {
    id: 'waist-to-hip',
    name: 'Waist to hip, fitness industry',
    of: 'waist-to-hip',
    unit: '',
    source: 'Common practice',
    bands: (sex, ageYears) => adult(ageYears, bands(['low', 0], ['at risk', sex === 'male' ? 0.95 : 0.86])),
  },
  {
    id: 'waist-to-hip-who',
    name: 'Waist to hip, WHO 2008',
    of: 'waist-mid-to-hip',
    unit: '',
    source: 'World Health Organization 2008, expert consultation on waist (recalled)',
    bands: (sex, ageYears) => adult(ageYears, bands(['not raised', 0], ['risk raised', sex === 'male' ? 0.9 : 0.85])),
  },
  {
    id: 'waist-to-height',
    name: 'Waist to height',
    of: 'waist-to-height',
    unit: '',
    source: 'Three bands of public guidance: 0.4 to 0.49, 0.5 to 0.59, 0.6 and over (recalled)',
    bands: (_, ageYears) =>
      adult(ageYears, bands(['below the range', 0], ['in the range', 0.4], ['raised', 0.5], ['high', 0.6])),
  },
]

/** Said instead of a table for athletes. */
export const ATHLETES_HAVE_NO_TABLE = 'There is no accepted standard for athletes: follow the sum of folds.'
