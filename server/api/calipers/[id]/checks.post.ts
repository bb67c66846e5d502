import { setResponseStatus } from 'h3'
import { caliperCheckInput } from '../../../../shared/schemas/caliper'
import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { refuseFuture } from '../../../http/days'
import { failure } from '../../../http/failure'
import { idParam } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { checkCaliper, listCalipers } from '../../../repositories/calipers'
import { change } from '../../../write/use-change'

/** Notes a check of a caliper against its block. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const who = signedInAs(event)
  const sentence = 'There is no such caliper.'
  const id = idParam(event, sentence)
  const input = await readJson(event, caliperCheckInput)
  refuseFuture(event, { checkedOn: input.checkedOn })
  await change(actorOf(event), { kind: 'caliper.checked', subjectId: id }, async (tx, unit) => {
    const added = await checkCaliper(tx, who, id, input)
    if (added === null) throw failure(404, sentence)
    if (added === 0) unit.unchanged()
  })
  setResponseStatus(event, 201)
  return listCalipers(await useDatabase(), who)
})
