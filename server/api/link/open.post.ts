import { ageInYears, localDay } from '../../../core/calendar'
import { ADULT_YEARS } from '../../../core/cautions'
import { useDatabase } from '../../db/use-database'
import { findClient } from '../../repositories/clients'
import { findTimeZone } from '../../repositories/staff'
import { linkToken, type LinkDoor } from '../../../shared/schemas/link'
import { readJson } from '../../http/body'
import { linkOfToken } from '../../http/link-of-token'
import { defineRoute } from '../../http/route'

/** What stands behind a client's link before its PIN: a first name and the studio's, nothing else. */
export default defineRoute({ access: 'open' }, async (event): Promise<LinkDoor> => {
  const { token } = await readJson(event, linkToken)
  const { clientName, studioName, pinHash, clientId, studioId } = await linkOfToken(event, token)
  const firstName = clientName.split(' ')[0] ?? ''
  const db = await useDatabase()
  const client = await findClient(db, { studioId }, clientId)
  const today = localDay(Date.now(), await findTimeZone(db, { studioId }))
  const guardian = client !== null && ageInYears(client.birthDate, today) < ADULT_YEARS
  return { studioName, firstName, ...(guardian ? { guardian } : {}), pin: pinHash === null ? 'choose' : 'give' }
})
