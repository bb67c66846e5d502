import { v7 as uuid } from 'uuid'
import type { ClientHome } from '../../../shared/schemas/link'
import { useDatabase } from '../../db/use-database'
import { atLinkOf, linkActor, ownRecord } from '../../http/at-link'
import { ownHome } from '../../http/own-home'
import { defineRoute } from '../../http/route'
import { findReminders, setReminders } from '../../repositories/reminders'
import { change } from '../../write/use-change'

/** Stops every reminder at once; a coach sets them again when asked. */
export default defineRoute({ access: 'link' }, async (event): Promise<ClientHome> => {
  const { clientId } = atLinkOf(event)
  const kept = await findReminders(await useDatabase(), clientId)
  await change(linkActor(event), { kind: 'reminders.stopped', clientId }, (tx) =>
    setReminders(tx, clientId, null, { ...kept, id: uuid(), visits: false, handIns: false }),
  )
  return ownHome(event, await ownRecord(event))
})
