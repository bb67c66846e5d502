import { habitsInput } from '../../../shared/schemas/account'
import { useDatabase } from '../../db/use-database'
import { actorOf } from '../../http/actor'
import { readJson } from '../../http/body'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { findMe, setHabits } from '../../repositories/staff'
import { change } from '../../write/use-change'

export default defineRoute({ access: 'recorder', proof: 'second' }, async (event) => {
  const who = signedInAs(event)
  const habits = await readJson(event, habitsInput)
  await change(actorOf(event), { kind: 'staff.habits' }, (tx) => setHabits(tx, who, habits))
  return findMe(await useDatabase(), who)
})
