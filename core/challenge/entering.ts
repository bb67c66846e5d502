import { ageInYears, type Day } from '../calendar'
import { hasEffect, type CautionPerson } from '../cautions'
import { challengeFindings, type GateCode, type SafetyFacts } from '../safety'

/** Why somebody is not entered; said to their coach only. */
export type Barred = 'under-18' | 'neutral' | 'pregnant' | 'underweight' | 'lean' | 'older' | 'care' | 'no-consent'

/** What is measured of somebody who is to take part; left out: not known, and the person alone decides. */
export type BarredMeasures = Partial<Pick<SafetyFacts, 'heightCm' | 'weightKg' | 'percent'>>

const OF_CODE: Partial<Record<GateCode, Barred>> = {
  'under-18': 'under-18',
  pregnant: 'pregnant',
  breastfeeding: 'pregnant',
  'eating-disorder': 'neutral',
  'neutral-wish': 'neutral',
  older: 'older',
  'bmi-now': 'underweight',
  'bmi-challenge': 'underweight',
  'percent-now': 'lean',
  'percent-challenge': 'lean',
}

/** Whether somebody may take part on a day, and if not, why: the gate decides (core/safety). */
export function barredFrom(person: CautionPerson, day: Day, measures: BarredMeasures = {}): Barred | null {
  if (person.consentOn === null) return 'no-consent'
  const [first] = challengeFindings({
    sex: person.sex,
    ageYears: ageInYears(person.birthDate, day),
    heightCm: measures.heightCm ?? null,
    weightKg: measures.weightKg ?? null,
    percent: measures.percent ?? null,
    flags: person.flags ?? [],
  })
  if (first) return OF_CODE[first.code] ?? 'care'
  return hasEffect(person, day, 'neutral-mode') ? 'neutral' : null
}

/** Each in a sentence, for the coach. */
export const BARRED_WORDS: Readonly<Record<Barred, string>> = {
  'no-consent': 'Consent is not on record.',
  'under-18': 'Under 18: no challenges.',
  neutral: 'Neutral mode, or signs that speak against losing: no challenges.',
  pregnant: 'Pregnant, recently so or breastfeeding: no challenges.',
  care: 'Under medical care that speaks against losing: no challenges.',
  underweight: 'BMI under 20: no challenges.',
  lean: 'Little fat already (women under 20 %, men under 12 %): no challenges.',
  older: 'From 65 years below a BMI of 23: no challenges.',
}
