import { energyOffer } from '../../../shared/schemas/account'
import { useDatabase } from '../../db/use-database'
import { actorOf } from '../../http/actor'
import { readJson } from '../../http/body'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { findMe, offerEnergy } from '../../repositories/staff'
import { change } from '../../write/use-change'

/** A lead offers energy and macros, the page on scope of practice accepted, or takes the offer back. */
export default defineRoute({ access: 'lead', proof: 'second' }, async (event) => {
  const who = signedInAs(event)
  const { offered } = await readJson(event, energyOffer)
  await change(actorOf(event), { kind: 'energy.offered' }, (tx) => offerEnergy(tx, who, offered))
  return findMe(await useDatabase(), who)
})
