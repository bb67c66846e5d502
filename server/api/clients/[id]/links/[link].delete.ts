import type { FromHome } from '../../../../../shared/schemas/link'
import { useDatabase } from '../../../../db/use-database'
import { actorOf } from '../../../../http/actor'
import { failure } from '../../../../http/failure'
import { clientAt, idParam } from '../../../../http/params'
import { signedInAs } from '../../../../http/signed-in'
import { todayAt } from '../../../../http/days'
import { defineRoute } from '../../../../http/route'
import { findFromHome } from '../../../../repositories/client-home'
import { revokeLink } from '../../../../repositories/client-links'
import { change } from '../../../../write/use-change'

/** Ends a client's link at once; its phones are signed out. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<FromHome> => {
  const client = await clientAt(event)
  const sentence = 'There is no such link.'
  const id = idParam(event, sentence, 'link')
  await change(actorOf(event), { kind: 'link.revoked', clientId: client.id, subjectId: id }, async (tx) => {
    if (!(await revokeLink(tx, client.id, id))) throw failure(404, sentence)
  })
  return findFromHome(await useDatabase(), signedInAs(event), client, todayAt(event))
})
