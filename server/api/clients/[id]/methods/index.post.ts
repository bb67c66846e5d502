import { setResponseStatus } from 'h3'
import { otherInput } from '../../../../../shared/schemas/other-method'
import { useDatabase } from '../../../../db/use-database'
import { actorOf } from '../../../../http/actor'
import { readJson } from '../../../../http/body'
import { refuseFuture } from '../../../../http/days'
import { failure } from '../../../../http/failure'
import { clientAt } from '../../../../http/params'
import { signedInAs } from '../../../../http/signed-in'
import { defineRoute } from '../../../../http/route'
import { addOther, listOther } from '../../../../repositories/other-methods'
import { change } from '../../../../write/use-change'

/** Notes what another method said of a client. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const client = await clientAt(event)
  const given = await readJson(event, otherInput)
  if (!client.consentOn) throw failure(409, 'Note the client’s consent before measuring.')
  if (given.method === 'dxa' && client.flags.includes('pregnant'))
    throw failure(409, 'No X-rays in pregnancy.', [{ field: 'method', message: 'No X-rays in pregnancy.' }])
  refuseFuture(event, { day: given.day })
  const about = { clientId: client.id, subjectId: given.id }
  await change(actorOf(event), { kind: 'method.added', ...about }, async (tx, unit) => {
    if ((await addOther(tx, signedInAs(event), client.id, given)) === 0) unit.unchanged()
  })
  setResponseStatus(event, 201)
  return listOther(await useDatabase(), client.id)
})
