import { clientCoach, type Client } from '../../../../shared/schemas/client'
import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { failure } from '../../../http/failure'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { findClient, setCoach } from '../../../repositories/clients'
import { listStaff } from '../../../repositories/staff'
import { change } from '../../../write/use-change'

/** Says whose client somebody is; answers with the record as whoever asks still sees it, or null. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<Client | null> => {
  const client = await clientAt(event)
  const { coachId } = await readJson(event, clientCoach)
  const who = signedInAs(event)
  const db = await useDatabase()
  const coach = (await listStaff(db, who)).find(({ id }) => id === coachId)
  if (coachId !== null && (!coach || coach.role === 'recorder')) {
    const message = 'Clients belong to a coach who works here.'
    throw failure(422, message, [{ field: 'coachId', message }])
  }
  await change(actorOf(event), { kind: 'client.coach', clientId: client.id }, async (tx, unit) => {
    if (client.coachId === coachId) unit.unchanged()
    else await setCoach(tx, client.id, coachId)
  })
  return findClient(db, who, client.id)
})
