import { useDatabase } from '../../../../db/use-database'
import { actorOf } from '../../../../http/actor'
import { idParam } from '../../../../http/params'
import { signedInAs } from '../../../../http/signed-in'
import { defineRoute } from '../../../../http/route'
import { noteKnown } from '../../../../repositories/sessions'
import { findMe } from '../../../../repositories/staff'
import { change } from '../../../../write/use-change'

/** Says that a sign-in on a new device was one's own. */
export default defineRoute({ access: 'recorder', proof: 'second' }, async (event) => {
  const who = signedInAs(event)
  const id = idParam(event, 'There is no such session.')
  await change(actorOf(event), { kind: 'session.known' }, async (tx, unit) => {
    if (!(await noteKnown(tx, who, id))) unit.unchanged()
  })
  return findMe(await useDatabase(), who)
})
