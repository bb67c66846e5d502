import { LARGE_FOLDS_BMI } from '../equations/applicability'
import type { Sex } from '../equations/equation'
import type { Flag } from './flags'

/** What a caution does beyond being shown. */
export type Effect =
  | 'neutral-mode'
  | 'no-percent'
  | 'no-deficits'
  | 'children-only'
  | 'no-impedance'
  | 'tape-first'
  | 'not-yet'

/** Something always visible where it applies: plain words, no diagnosis. */
export interface PersonCaution {
  code: string
  sentence: string
  effects: readonly Effect[]
}

/** What cautions look at. Undefined or null: not known, and nothing is said about it. */
export interface CautionFacts {
  sex: Sex
  ageYears: number
  bmi: number | null
  percent: number | null
  /** Largest fold read, mm. */
  largestFoldMm: number | null
  flags: readonly Flag[]
  consent: boolean
  guardianConsent: boolean
  caliper?: { daysSinceCheck: number | null; deviationMm: number | null } | null
}

/** A caution as the reference shows it and as it fires. */
export interface CautionRule {
  code: string
  /** When it applies, in a few words. */
  when: string
  applies: (facts: CautionFacts) => boolean
  sentence: string | ((facts: CautionFacts) => string)
  effects: readonly Effect[]
}

/** Essential fat, percent (common practice). */
export const ESSENTIAL_FAT: Readonly<Record<Sex, { low: number; high: number }>> = {
  male: { low: 3, high: 5 },
  female: { low: 10, high: 13 },
}

/** Jaws open this far on common calipers, mm; above, a fold is beyond what can be read well. */
export const JAWS_MM = 60
/** A caliper is checked against its block at least once in so many days (common practice). */
export const CHECK_EVERY_DAYS = 365
const CHECK_DEVIATION_MM = 0.5
/** Age from which the tables and equations for adults hold, years. */
export const ADULT_YEARS = 18
/** BMI of adults under which they are underweight (WHO). */
export const UNDERWEIGHT_BMI = 18.5

/** Every caution, in the order they are shown (common practice; local rules and licensed practice decide). */
export const CAUTION_RULES: readonly CautionRule[] = [
  {
    code: 'consent',
    when: 'Consent is not on record',
    applies: ({ consent }) => !consent,
    sentence:
      'Consent to touch and to keep data is not on record. Explain, offer a chaperone, a private place or tape only; never a condition for training.',
    effects: ['not-yet'],
  },
  {
    code: 'under-18',
    when: 'Under 18 years',
    applies: ({ ageYears }) => ageYears < ADULT_YEARS,
    sentence:
      'Under 18: only the equations made on children, no deficits, and a doctor or dietitian for questions of weight.',
    effects: ['children-only', 'no-deficits'],
  },
  {
    code: 'guardian',
    when: 'Under 18 without a guardian’s consent',
    applies: ({ ageYears, guardianConsent }) => ageYears < ADULT_YEARS && !guardianConsent,
    sentence: 'Under 18: a guardian’s consent is needed before measuring and is not on record.',
    effects: ['not-yet'],
  },
  {
    code: 'eating-disorder',
    when: 'Eating-disorder history or signs',
    applies: ({ flags }) => flags.includes('eating-disorder'),
    sentence:
      'Neutral mode: no percent, no weight on pages the client sees, no deficits. Refer to a doctor or registered dietitian.',
    effects: ['neutral-mode', 'no-deficits'],
  },
  {
    code: 'neutral-wish',
    when: 'The client asks for it',
    applies: ({ flags }) => flags.includes('neutral-wish'),
    sentence: 'Neutral mode, as the client wishes: no percent and no weight on pages they see.',
    effects: ['neutral-mode', 'no-deficits'],
  },
  {
    code: 'pregnant',
    when: 'Pregnant or recently so',
    applies: ({ flags }) => flags.includes('pregnant'),
    sentence: 'Pregnant or recently so: no percent and no deficits.',
    effects: ['no-percent', 'no-deficits'],
  },
  {
    code: 'underweight',
    when: 'Adult with a BMI under 18.5',
    applies: ({ bmi, ageYears }) => ageYears >= ADULT_YEARS && bmi !== null && bmi < UNDERWEIGHT_BMI,
    sentence: 'The BMI is under 18.5: no deficits, and a doctor or registered dietitian for questions of weight.',
    effects: ['no-deficits'],
  },
  {
    code: 'implanted-device',
    when: 'Implanted device',
    applies: ({ flags }) => flags.includes('implanted-device'),
    sentence: 'Implanted device: no impedance scale.',
    effects: ['no-impedance'],
  },
  {
    code: 'large-folds',
    when: 'BMI 35 and over, or a fold of 60 mm and more',
    applies: ({ bmi, largestFoldMm }) => (bmi ?? 0) >= LARGE_FOLDS_BMI || (largestFoldMm ?? 0) >= JAWS_MM,
    sentence: 'Folds this large are hard to lift and read: offer tape, weight and the fit of clothes.',
    effects: ['tape-first'],
  },
  {
    code: 'essential-fat',
    when: 'Percent near essential fat',
    applies: ({ percent, sex }) => percent !== null && percent < ESSENTIAL_FAT[sex].high,
    sentence: ({ sex }) =>
      `Near essential fat (${sex === 'male' ? 'men about 3 to 5 %' : 'women about 10 to 13 %'}): contest peaks here are short and a medical matter; lower targets are refused.`,
    effects: ['no-deficits'],
  },
  {
    code: 'caliper-overdue',
    when: 'Caliper not checked within a year',
    applies: ({ caliper }) =>
      caliper !== undefined &&
      caliper !== null &&
      (caliper.daysSinceCheck === null || caliper.daysSinceCheck > CHECK_EVERY_DAYS),
    sentence: 'This caliper’s check block is overdue: check zero, block and jaw pressure (10 g/mm²).',
    effects: [],
  },
  {
    code: 'caliper-off',
    when: 'Caliper more than 0.5 mm off its check block',
    applies: ({ caliper }) => Math.abs(caliper?.deviationMm ?? 0) > CHECK_DEVIATION_MM,
    sentence: 'This caliper was more than 0.5 mm off at its last check: have it adjusted before relying on it.',
    effects: [],
  },
]

/** What each effect means, in words. */
export const EFFECTS: Readonly<Record<Effect, string>> = {
  'neutral-mode': 'no percent and no weight on pages the client sees',
  'no-percent': 'no percent',
  'no-deficits': 'no deficits',
  'children-only': 'children’s equations only',
  'no-impedance': 'no impedance scale',
  'tape-first': 'the tape is offered first',
  'not-yet': 'no measuring yet',
}

/** A caution's sentence for these facts. */
export function sentenceOf({ sentence }: CautionRule, facts: CautionFacts): string {
  return typeof sentence === 'string' ? sentence : sentence(facts)
}

/** The cautions that apply, in the order they are shown. */
export function cautionsFor(facts: CautionFacts): PersonCaution[] {
  return CAUTION_RULES.filter(({ applies }) => applies(facts)).map((rule) => ({
    code: rule.code,
    sentence: sentenceOf(rule, facts),
    effects: rule.effects,
  }))
}
