import { ownUnitsInput } from '../../shared/schemas/account'
import { useDatabase } from '../db/use-database'
import { actorOf } from '../http/actor'
import { readJson } from '../http/body'
import { signedInAs } from '../http/signed-in'
import { defineRoute } from '../http/route'
import { findMe, setOwnUnits } from '../repositories/staff'
import { change } from '../write/use-change'

export default defineRoute({ access: 'recorder', proof: 'second' }, async (event) => {
  const who = signedInAs(event)
  const units = await readJson(event, ownUnitsInput)
  await change(actorOf(event), { kind: 'staff.units' }, (tx) => setOwnUnits(tx, who, units))
  return findMe(await useDatabase(), who)
})
