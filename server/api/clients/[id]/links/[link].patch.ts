import { addDays } from 'date-fns'
import { linkChange, type FromHome } from '../../../../../shared/schemas/link'
import { useDatabase } from '../../../../db/use-database'
import { actorOf } from '../../../../http/actor'
import { readJson } from '../../../../http/body'
import { todayAt } from '../../../../http/days'
import { failure } from '../../../../http/failure'
import { checkLinkScope } from '../../../../http/link-scope'
import { clientAt, idParam } from '../../../../http/params'
import { signedInAs } from '../../../../http/signed-in'
import { defineRoute } from '../../../../http/route'
import { findFromHome } from '../../../../repositories/client-home'
import { changeLink } from '../../../../repositories/client-links'
import { change } from '../../../../write/use-change'

/** Changes what a client's link opens, or until when. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<FromHome> => {
  const client = await clientAt(event)
  const sentence = 'There is no such link.'
  const id = idParam(event, sentence, 'link')
  const { scope, days, sites, reason = '' } = await readJson(event, linkChange)
  const reasonFor = await checkLinkScope(event, client, { scope: scope ?? [], reason })
  const changed = {
    ...(scope ? { scope, reason, reasonFor } : {}),
    ...(sites ? { sites } : {}),
    ...(days ? { expiresAt: addDays(new Date(), days).toISOString() } : {}),
  }
  await change(actorOf(event), { kind: 'link.changed', clientId: client.id, subjectId: id }, async (tx, unit) => {
    if (Object.keys(changed).length === 0) unit.unchanged()
    else if (!(await changeLink(tx, client.id, id, changed))) throw failure(404, sentence)
  })
  return findFromHome(await useDatabase(), signedInAs(event), client, todayAt(event))
})
