import { pinInput } from '../../../shared/schemas/device'
import { useDatabase } from '../../db/use-database'
import { actorOf } from '../../http/actor'
import { readJson } from '../../http/body'
import { pinSecret } from '../../http/pin'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { setPin } from '../../repositories/locks'
import { findMe } from '../../repositories/staff'
import { change } from '../../write/use-change'

/** Sets one's own PIN for locked devices. */
export default defineRoute({ access: 'recorder', proof: 'fresh', beforeSecond: true }, async (event) => {
  const who = signedInAs(event)
  const { pin } = await readJson(event, pinInput)
  const secret = await pinSecret(who.staffId, pin)
  await change(actorOf(event), { kind: 'pin.set' }, (tx) => setPin(tx, who.staffId, secret))
  return findMe(await useDatabase(), who)
})
