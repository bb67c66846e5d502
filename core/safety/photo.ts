import { ageInYears, type Day } from '../calendar'
import { LIMITS } from './limits'

/**
 * Why no photograph from home is taken of somebody; null: one may be. Under 16 none at all, under 18 with a guardian's
 * consent (common practice of safeguarding).
 * @example homePhotoBarred({ birthDate: '2012-05-01', guardianConsent: true }, '2026-11-27') // 'Under 16: ...'
 */
export function homePhotoBarred(
  { birthDate, guardianConsent = false }: { birthDate: Day; guardianConsent?: boolean },
  today: Day,
): string | null {
  const age = ageInYears(birthDate, today)
  const least = LIMITS.homePhotoYears.value
  if (age < least) return `Under ${least}: no photographs are taken at home.`
  if (age < LIMITS.adultYears.value && !guardianConsent)
    return 'Under 18: photographs at home need a guardian’s consent.'
  return null
}
