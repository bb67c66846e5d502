import type { Day } from '../core/calendar'
import { hasEffect, type CautionPerson } from '../core/cautions'

/**
 * Whether nothing a client may look at on a day holds a number about their body: what the cautions that apply to them say.
 * Under 18 it is so by default.
 */
export function isNeutral(person: CautionPerson, today: Day): boolean {
  return hasEffect(person, today, 'neutral-mode')
}
