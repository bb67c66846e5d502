import { defineEventHandler, setResponseStatus } from 'h3'
import { startCheckinInput } from '../../../../shared/schemas/checkin'
import { useDatabase } from '../../../db/use-database'
import { readJson } from '../../../http/body'
import { failure } from '../../../http/failure'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { startCheckin } from '../../../repositories/checkins'

/** Starts a check-in; answers with the one already open for this client where there is one. */
export default defineEventHandler(async (event) => {
  const client = await clientAt(event)
  const input = await readJson(event, startCheckinInput)
  if (client.archived) throw failure(409, 'This client is archived. Bring them back before measuring.')
  if (!client.consentOn) throw failure(409, 'Note the client’s consent before measuring.')
  const id = await startCheckin(await useDatabase(), signedInAs(event), {
    ...input,
    clientId: client.id,
    side: client.usualSide,
  })
  if (!id) throw failure(409, 'This id is taken.', [{ field: 'id', message: 'This id is taken.' }])
  setResponseStatus(event, id === input.id ? 201 : 200)
  return { id }
})
