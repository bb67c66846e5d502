import { fixed } from '../units/round'
import { asFoldSite } from '../sites'
import type { DensityConversion } from './density'
import { NO_OPTIONS, type Equation, type FormulaOptions, type KnownMeasures, type Measures, type Sex } from './equation'
import { bmi } from './measures'

/** What is known of a person beyond measures. Undefined: not known, and then not held against an equation. */
export interface PersonFacts {
  sex: Sex
  athlete?: boolean | null
  /** Population group as the client gave it, only where they wanted it on record. */
  ancestry?: string | null
}

/** Something the reader of an estimate has to know, with its sentence. */
export interface Caution {
  code:
    | 'sex'
    | 'age'
    | 'ancestry'
    | 'athlete'
    | 'size'
    | 'obese'
    | 'sum'
    | 'tracking'
    | 'rounding'
    | 'conversion'
    | 'note'
  sentence: string
}

/** From here on folds are hard to lift and read (BMI, kg/m^2; common practice). */
export const LARGE_FOLDS_BMI = 35
/** Obesity by the WHO (BMI, kg/m^2). */
export const OBESE_BMI = 30

function years({ low, high }: { low: number; high: number }): string {
  return Number.isFinite(high) ? `${low} to ${high}` : `${low} and over`
}

function ageCaution({ ages: all, agesBySex }: Equation, { age }: KnownMeasures, { sex }: PersonFacts): Caution[] {
  const ages = agesBySex?.[sex] ?? all
  if (!ages || age === undefined || (age >= ages.low && age <= ages.high)) return []
  return [{ code: 'age', sentence: `Age ${age} is outside the sample this equation was made on (${years(ages)}).` }]
}

function sexCaution({ sex }: Equation, person: PersonFacts): Caution[] {
  if (sex === 'both' || sex === person.sex) return []
  return [{ code: 'sex', sentence: `Made for ${sex === 'male' ? 'men' : 'women'}.` }]
}

function sumCaution({ sums, sum: sumOf }: Equation, measures: Measures): Caution[] {
  if (!sums || !sumOf) return []
  const sum = sumOf(measures)
  if (sum >= sums.low && sum <= sums.high) return []
  return [
    {
      code: 'sum',
      sentence: `A sum of ${fixed(sum, 1)} mm is outside the sample this equation was made on (${sums.low} to ${sums.high} mm).`,
    },
  ]
}

function bodyCautions(equation: Equation, measures: KnownMeasures, person: PersonFacts): Caution[] {
  const { weight, height } = measures
  const index = weight !== undefined && height !== undefined ? bmi(weight, height) : null
  const cautions: Caution[] = []
  if (equation.population === 'athletes' && person.athlete === false) {
    cautions.push({ code: 'athlete', sentence: 'Made on athletes; this client is not on record as one.' })
  }
  if (equation.population === 'obese' && index !== null && index < OBESE_BMI) {
    cautions.push({ code: 'obese', sentence: `Made on obese people; a BMI of ${fixed(index, 1)} is below 30.` })
  }
  if (equation.inputs.some((input) => asFoldSite(input) !== null) && index !== null && index >= LARGE_FOLDS_BMI) {
    cautions.push({
      code: 'obese',
      sentence: `At a BMI of ${fixed(index, 1)} folds are hard to lift and read: tape and weight serve better.`,
    })
  }
  if (equation.sizeOnly && person.athlete === true) {
    cautions.push({ code: 'size', sentence: 'From size alone: an athlete’s muscle counts as fat here.' })
  }
  if (equation.population === 'tracking') {
    cautions.push({ code: 'tracking', sentence: 'A number to follow, not an estimate: it has no published sample.' })
  }
  return cautions
}

/** What lies outside an equation's sample, and what has to be known beside it. Empty: nothing. */
export function applicability(
  equation: Equation,
  measures: Measures,
  person: PersonFacts,
  options: FormulaOptions = NO_OPTIONS,
): Caution[] {
  const note = typeof equation.note === 'function' ? equation.note(options) : equation.note
  return [
    ...sexCaution(equation, person),
    ...ageCaution(equation, measures, person),
    ...sumCaution(equation, measures),
    ...bodyCautions(equation, measures, person),
    ...(note ? [{ code: 'note' as const, sentence: note }] : []),
  ]
}

/** What has to be known beside a density conversion made for one population. */
export function conversionCautions(
  conversion: DensityConversion,
  age: number | undefined,
  person: PersonFacts,
): Caution[] {
  const { sex, ages, group, label } = conversion
  if (sex === null) return []
  const wrongSex = sex !== person.sex
  const wrongAge = ages !== null && age !== undefined && (age < ages.low || age > ages.high)
  if (wrongSex || wrongAge) {
    return [{ code: 'conversion', sentence: `The density conversion was made for ${label}.` }]
  }
  const personal = group !== 'Boys' && group !== 'Girls' && group !== 'Obese women'
  if (!personal) return []
  // A record of some group is no record of this one.
  const own = person.ancestry?.replace('-', ' ').toLowerCase()
  if (own && group?.toLowerCase().startsWith(own)) return []
  const says = own ? 'the record says another group' : 'the record does not say the group'
  return [{ code: 'ancestry', sentence: `The density conversion was made for ${label}; ${says}.` }]
}
