import { useDatabase } from '../../db/use-database'
import { actorOf } from '../../http/actor'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { removePin } from '../../repositories/locks'
import { findMe } from '../../repositories/staff'
import { change } from '../../write/use-change'

/** Takes one's own PIN away: a locked device then asks for the password. */
export default defineRoute({ access: 'recorder', proof: 'fresh' }, async (event) => {
  const who = signedInAs(event)
  await change(actorOf(event), { kind: 'pin.removed' }, async (tx, unit) => {
    if (!(await removePin(tx, who.staffId))) unit.unchanged()
  })
  return findMe(await useDatabase(), who)
})
