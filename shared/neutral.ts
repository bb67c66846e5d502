import { hasEffect, type CautionPerson } from '../core/cautions'

/**
 * Whether nothing a client may look at shows percent, mass or weight: what the cautions that apply to them say. The day
 * plays no part in those, so any will do.
 */
export function isNeutral(person: CautionPerson): boolean {
  return hasEffect(person, person.birthDate, 'neutral-mode')
}
