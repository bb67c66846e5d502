import { ageInYears, type Day } from '../calendar'
import type { Sex } from '../equations/equation'
import { cautionsFor, type CautionFacts, type Effect } from './cautions'
import type { Flag } from './flags'

/** What cautions take from a client's record. */
export interface CautionPerson {
  sex: Sex
  birthDate: Day
  flags?: readonly Flag[]
  consentOn?: string | null
  guardianConsent?: boolean
}

/** What they take from a visit; left out: not known. */
export type CautionVisit = Partial<Pick<CautionFacts, 'bmi' | 'percent' | 'largestFoldMm' | 'caliper'>>

/** The facts cautions look at, from a record and a visit on a day: built here and nowhere else. */
export function cautionFacts(person: CautionPerson, day: Day, visit: CautionVisit = {}): CautionFacts {
  return {
    sex: person.sex,
    ageYears: ageInYears(person.birthDate, day),
    bmi: visit.bmi ?? null,
    percent: visit.percent ?? null,
    largestFoldMm: visit.largestFoldMm ?? null,
    flags: person.flags ?? [],
    consent: person.consentOn !== null,
    guardianConsent: person.guardianConsent ?? false,
    ...(visit.caliper === undefined ? {} : { caliper: visit.caliper }),
  }
}

/** Whether a caution that applies to a person on a day has an effect. */
export function hasEffect(person: CautionPerson, day: Day, effect: Effect): boolean {
  return cautionsFor(cautionFacts(person, day)).some(({ effects }) => effects.includes(effect))
}
