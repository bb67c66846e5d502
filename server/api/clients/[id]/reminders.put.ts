import { remindersInput, type ReminderRecord } from '../../../../shared/schemas/link'
import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { failure } from '../../../http/failure'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { findReminders, setReminders } from '../../../repositories/reminders'
import { change } from '../../../write/use-change'

/** Sets where a client is reminded and of what. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<ReminderRecord> => {
  const client = await clientAt(event)
  const input = await readJson(event, remindersInput)
  if ((input.visits || input.handIns) && input.email === null) {
    const message = 'Reminders by mail need an address.'
    throw failure(422, message, [{ field: 'email', message }])
  }
  const who = signedInAs(event)
  await change(
    actorOf(event),
    { kind: 'reminders.set', clientId: client.id, subjectId: input.id },
    async (tx, unit) => {
      if ((await setReminders(tx, client.id, who.staffId, input)) === 0) unit.unchanged()
    },
  )
  return findReminders(await useDatabase(), client.id)
})
