import { setResponseStatus } from 'h3'
import { addDays } from 'date-fns'
import { v7 as uuid } from 'uuid'
import { linkInput } from '../../../../../shared/schemas/link'
import { useDatabase } from '../../../../db/use-database'
import { actorOf } from '../../../../http/actor'
import { ownOrigin } from '../../../../http/address'
import { readJson } from '../../../../http/body'
import { todayAt } from '../../../../http/days'
import { failure } from '../../../../http/failure'
import { checkLinkScope } from '../../../../http/link-scope'
import { clientAt } from '../../../../http/params'
import { hashOf, randomToken } from '../../../../http/tokens'
import { signedInAs } from '../../../../http/signed-in'
import { defineRoute } from '../../../../http/route'
import { findFromHome } from '../../../../repositories/client-home'
import { addLink } from '../../../../repositories/client-links'
import { change } from '../../../../write/use-change'

/** Makes a client's link, or renews it: the one before stops working. It is shown here and never again. */
export default defineRoute({ access: 'coach', proof: 'fresh' }, async (event) => {
  const client = await clientAt(event)
  const { scope, days, sites, reason } = await readJson(event, linkInput)
  if (client.archived) throw failure(409, 'This client is archived. Bring them back first.')
  if (!client.consentOn) throw failure(409, 'Note the client’s consent before making a link.')
  const reasonFor = await checkLinkScope(event, client, { scope, reason })
  const token = randomToken()
  const id = uuid()
  const link = {
    id,
    scope,
    sites,
    reason,
    reasonFor,
    clientId: client.id,
    tokenHash: hashOf(token),
    expiresAt: addDays(new Date(), days).toISOString(),
  }
  await change(actorOf(event), { kind: 'link.made', clientId: client.id, subjectId: id }, (tx) =>
    addLink(tx, signedInAs(event), link),
  )
  setResponseStatus(event, 201)
  // Behind the hash sign: it reaches no server's log.
  return {
    link: `${ownOrigin(event)}/hand-in#${token}`,
    fromHome: await findFromHome(await useDatabase(), signedInAs(event), client, todayAt(event)),
  }
})
