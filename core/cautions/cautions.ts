import { FAULT_WORDS, OFF_MM, type CaliperFault } from '../devices/block'
import { LARGE_FOLDS_BMI } from '../equations/applicability'
import type { Sex } from '../equations/equation'
import { FLAGS, type Flag } from './flags'

/** What a caution does beyond being shown. */
export type Effect =
  | 'neutral-mode'
  | 'no-percent'
  | 'no-deficits'
  | 'children-only'
  | 'no-impedance'
  | 'tape-first'
  | 'protein-low'
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
  caliper?: { daysSinceCheck: number | null; deviationMm: number | null; fault?: CaliperFault } | null
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
/** Age from which the tables and equations for adults hold, years. */
export const ADULT_YEARS = 18
/** BMI of adults under which they are underweight (WHO). */
export const UNDERWEIGHT_BMI = 18.5

/** Age from which a loss is planned with more care, years. */
export const OLDER_YEARS = 65

const SPORTS_DOCTOR = 'Any deficit needs care: see a sports doctor first.'

/** A caution that a flag alone brings. */
const flagged = (flag: Flag, sentence: string, effects: readonly Effect[] = []): CautionRule => ({
  code: flag,
  when: FLAGS[flag],
  applies: ({ flags }) => flags.includes(flag),
  sentence,
  effects,
})

/** A medication under which no deficit is planned before the prescriber has agreed. */
const prescribed = (flag: Flag, what: string): CautionRule => ({
  ...flagged(flag, `${what}: no deficit before the prescriber agrees.`, ['no-deficits']),
  applies: ({ flags }) => flags.includes(flag) && !flags.includes('prescriber-agreed'),
})

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
      'Under 18: neutral mode, only equations made on children, no plan by weight or energy. Questions of weight go to a doctor or dietitian.',
    effects: ['neutral-mode', 'children-only', 'no-deficits'],
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
    when: FLAGS['eating-disorder'],
    applies: ({ flags }) => flags.includes('eating-disorder'),
    sentence:
      'Eating disorder, now or in the past: no body measuring unless the care team asks. Neutral mode, no deficits; refer to a doctor or registered dietitian.',
    effects: ['neutral-mode', 'no-deficits'],
  },
  {
    code: 'neutral-wish',
    when: FLAGS['neutral-wish'],
    applies: ({ flags }) => flags.includes('neutral-wish'),
    sentence: 'Neutral mode, as the client wishes: no number about the body where they may look.',
    effects: ['neutral-mode', 'no-deficits'],
  },
  {
    code: 'pregnant',
    when: FLAGS.pregnant,
    applies: ({ flags }) => flags.includes('pregnant'),
    sentence: 'Pregnant or recently so: neutral mode, no percent and no deficits.',
    effects: ['neutral-mode', 'no-percent', 'no-deficits'],
  },
  flagged('breastfeeding', 'Breastfeeding, first six months: neutral mode, no percent and no deficits.', [
    'neutral-mode',
    'no-percent',
    'no-deficits',
  ]),
  flagged('breastfeeding-later', 'Breastfeeding: a small deficit at most, and milk comes first.'),
  flagged('dialysis', 'Dialysis: neutral mode and no deficits. Water moves weight and folds from day to day.', [
    'neutral-mode',
    'no-deficits',
  ]),
  {
    code: 'underweight',
    when: 'Adult with a BMI under 18.5',
    applies: ({ bmi, ageYears }) => ageYears >= ADULT_YEARS && bmi !== null && bmi < UNDERWEIGHT_BMI,
    sentence: 'The BMI is under 18.5: no deficits, and a doctor or registered dietitian for questions of weight.',
    effects: ['no-deficits'],
  },
  flagged('implanted-device', 'Implanted device: no impedance scale.', ['no-impedance']),
  flagged('missed-periods', `Missed or irregular periods for three months. ${SPORTS_DOCTOR}`),
  flagged('stress-fracture', `Stress fracture. ${SPORTS_DOCTOR}`),
  flagged('fainting', `Fainting. ${SPORTS_DOCTOR}`),
  prescribed('diabetes-medication', 'Diabetes with tablets or insulin'),
  prescribed('appetite-medication', 'Medication that lowers appetite'),
  flagged('kidney-disease', 'Kidney disease: protein up to 0.8 g a kg of body weight, no higher target.', [
    'protein-low',
  ]),
  flagged(
    'anticoagulants',
    'Anticoagulants, or bleeds easily: lift folds gently or use tape alone; watch for bruises.',
    ['tape-first'],
  ),
  flagged('lymphoedema-right', 'Lymphoedema or an operation on the right: measure the left side, always.'),
  flagged('lymphoedema-left', 'Lymphoedema or an operation on the left: measure the right side, always.'),
  flagged('swelling', 'Steroids or swelling: folds mislead; read changes of folds with care.'),
  flagged('surgery', 'Recent surgery at a site: leave that site out.'),
  flagged('skin-condition', 'Skin condition at a site: leave that site out.'),
  {
    code: 'older',
    when: '65 years and over',
    applies: ({ ageYears }) => ageYears >= OLDER_YEARS,
    sentence: '65 and over: lose slower if at all, with strength training, after a doctor has agreed.',
    effects: [],
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
    applies: ({ caliper }) => caliper?.fault === 'off' || Math.abs(caliper?.deviationMm ?? 0) > OFF_MM,
    sentence: FAULT_WORDS.off,
    effects: [],
  },
  {
    code: 'caliper-pressure',
    when: 'Caliper whose jaws press too little or too much',
    applies: ({ caliper }) => caliper?.fault === 'pressure',
    sentence: FAULT_WORDS.pressure,
    effects: [],
  },
]

/** What each effect means, in words. */
export const EFFECTS: Readonly<Record<Effect, string>> = {
  'neutral-mode': 'no number about the body where the client may look',
  'no-percent': 'no percent',
  'no-deficits': 'no deficits',
  'children-only': 'children’s equations only',
  'no-impedance': 'no impedance scale',
  'tape-first': 'the tape is offered first',
  'protein-low': 'protein up to 0.8 g a kg',
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
