import { cautionsFor, ESSENTIAL_FAT, UNDERWEIGHT_BMI, type CautionFacts } from '../cautions'

/** How far over essential fat somebody still counts as near it, percentage points (common practice). */
const NEAR_ESSENTIAL = 3

/** Why somebody is not entered; said to their coach only. */
export type Barred = 'under-18' | 'neutral' | 'pregnant' | 'underweight' | 'lean' | 'no-consent'

/** Whether somebody may take part, and if not, why. */
export function barredFrom(facts: CautionFacts): Barred | null {
  const effects = cautionsFor(facts).flatMap((one) => one.effects)
  if (!facts.consent) return 'no-consent'
  if (facts.ageYears < 18) return 'under-18'
  if (facts.flags.includes('pregnant')) return 'pregnant'
  if (effects.includes('neutral-mode')) return 'neutral'
  if (facts.bmi !== null && facts.bmi < UNDERWEIGHT_BMI) return 'underweight'
  if (facts.percent !== null && facts.percent <= ESSENTIAL_FAT[facts.sex].high + NEAR_ESSENTIAL) return 'lean'
  return effects.includes('no-deficits') ? 'neutral' : null
}

/** Each in a sentence, for the coach. */
export const BARRED_WORDS: Readonly<Record<Barred, string>> = {
  'no-consent': 'Consent is not on record.',
  'under-18': 'Under 18: no challenges.',
  neutral: 'Neutral mode, or signs that speak against losing: no challenges.',
  pregnant: 'Pregnant or recently so: no challenges.',
  underweight: `BMI under ${UNDERWEIGHT_BMI}: no challenges.`,
  lean: 'Near essential fat: no challenges.',
}
