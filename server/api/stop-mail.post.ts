import { v7 as uuid } from 'uuid'
import { stopMailInput } from '../../shared/schemas/mail'
import { useDatabase } from '../db/use-database'
import { readJson } from '../http/body'
import { failure } from '../http/failure'
import { countAttempt } from '../http/guessing'
import { hashOf } from '../http/tokens'
import { defineRoute } from '../http/route'
import { findStop } from '../repositories/mails'
import { findReminders, setReminders } from '../repositories/reminders'
import { change } from '../write/use-change'

/** Stops a client's reminders by the press in a mail. */
export default defineRoute({ access: 'open' }, async (event) => {
  const { token } = await readJson(event, stopMailInput)
  const db = await useDatabase()
  const found = await findStop(db, hashOf(token))
  if (!found) {
    await countAttempt(event, { account: 'mail stops', real: false, knownDevice: null })
    throw failure(404, 'This address is not known. Please tell your coach, who can stop the mails as well.')
  }
  const { clientId, studioId, studioName } = found
  const kept = await findReminders(db, clientId)
  await change({ kind: 'link', clientId, studioId }, { kind: 'reminders.stopped', clientId }, async (tx, unit) => {
    if (!kept.visits && !kept.handIns) unit.unchanged()
    else await setReminders(tx, clientId, null, { ...kept, id: uuid(), visits: false, handIns: false })
  })
  return { studioName }
})
