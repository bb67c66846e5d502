import type { H3Event } from 'h3'
import { ageInYears } from '../../core/calendar'
import { homePhotoBarred, LIMITS } from '../../core/safety'
import type { Client } from '../../shared/schemas/client'
import type { LinkScope } from '../../shared/schemas/link'
import { useDatabase } from '../db/use-database'
import { homeCodes, safetyFactsOf } from '../repositories/suspensions'
import { todayAt } from './days'
import { failure } from './failure'
import { signedInAs } from './signed-in'

/**
 * The gate for a client's link: photographs only of whom they may be taken at home, the link of a minor only with a
 * guardian's consent, and what is asked beyond the page to take home only with a reason where the gate speaks against it.
 * @returns the gate's codes that the reason answers
 * @throws 422 at the field
 */
export async function checkLinkScope(
  event: H3Event,
  client: Client,
  { scope, reason }: { scope: readonly LinkScope[]; reason: string },
): Promise<string[]> {
  const today = todayAt(event)
  const barred = scope.includes('photographs') ? homePhotoBarred(client, today) : null
  if (barred) throw failure(422, barred, [{ field: 'scope', message: barred }])
  if (ageInYears(client.birthDate, today) < LIMITS.adultYears.value && !client.guardianConsent)
    throw failure(409, 'Under 18: the link is the guardian’s. Note their consent by name and date first.')
  const facts = await safetyFactsOf(await useDatabase(), signedInAs(event), client.id, today)
  const codes = facts ? homeCodes(facts, scope) : []
  if (codes.length > 0 && reason === '') {
    const message = 'Neutral mode or the safety limits ask for the page to take home alone. Say why you ask for more.'
    throw failure(422, message, [{ field: 'reason', message }])
  }
  return codes
}
