import { ageInYears, type Day } from '../calendar'
import { LIMITS } from './limits'

/** Who is to be photographed: a guardian's consent to photographs is another than the one to measuring. */
export interface PhotoPerson {
  birthDate: Day
  guardianPhotoConsentOn?: Day | null
}

/**
 * Why nobody photographs somebody, here or at home; null: they may be. Under 18 a guardian's own consent to photographs is
 * needed (common practice of safeguarding).
 */
export function photoBarred({ birthDate, guardianPhotoConsentOn = null }: PhotoPerson, today: Day): string | null {
  const isMinor = ageInYears(birthDate, today) < LIMITS.adultYears.value
  return isMinor && guardianPhotoConsentOn === null
    ? 'Under 18: photographs need a guardian’s own consent, beside the one to measuring.'
    : null
}

/**
 * Why no photograph from home is taken of somebody; null: one may be. Under 16 none at all, under 18 with a guardian's
 * consent to photographs.
 * @example homePhotoBarred({ birthDate: '2012-05-01', guardianPhotoConsentOn: '2026-11-01' }, '2026-11-27') // 'Under 16: ...'
 */
export function homePhotoBarred(person: PhotoPerson, today: Day): string | null {
  const least = LIMITS.homePhotoYears.value
  if (ageInYears(person.birthDate, today) < least) return `Under ${least}: no photographs are taken at home.`
  return photoBarred(person, today)
}
