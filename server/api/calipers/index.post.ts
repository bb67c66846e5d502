import { setResponseStatus } from 'h3'
import { caliperInput } from '../../../shared/schemas/caliper'
import { useDatabase } from '../../db/use-database'
import { actorOf } from '../../http/actor'
import { readJson } from '../../http/body'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { addCaliper, listCalipers } from '../../repositories/calipers'
import { change } from '../../write/use-change'

export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const who = signedInAs(event)
  const input = await readJson(event, caliperInput)
  await change(actorOf(event), { kind: 'caliper.added', subjectId: input.id }, async (tx, unit) => {
    if ((await addCaliper(tx, who, input)) === 0) unit.unchanged()
  })
  setResponseStatus(event, 201)
  return listCalipers(await useDatabase(), who)
})
