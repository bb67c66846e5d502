import { studioInput } from '../../shared/schemas/account'
import { useDatabase } from '../db/use-database'
import { actorOf } from '../http/actor'
import { readJson } from '../http/body'
import { signedInAs } from '../http/signed-in'
import { defineRoute } from '../http/route'
import { changeStudio, findMe } from '../repositories/staff'
import { change } from '../write/use-change'

export default defineRoute({ access: 'lead', proof: 'second' }, async (event) => {
  const who = signedInAs(event)
  const input = await readJson(event, studioInput)
  await change(actorOf(event), { kind: 'studio.changed' }, (tx) => changeStudio(tx, who, input))
  return findMe(await useDatabase(), who)
})
