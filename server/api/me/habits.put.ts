import { defineEventHandler } from 'h3'
import { habitsInput } from '../../../shared/schemas/account'
import { useDatabase } from '../../db/use-database'
import { actorOf } from '../../http/actor'
import { readJson } from '../../http/body'
import { signedInAs } from '../../http/signed-in'
import { findMe, setHabits } from '../../repositories/staff'
import { change } from '../../write/use-change'

export default defineEventHandler(async (event) => {
  const who = signedInAs(event)
  const habits = await readJson(event, habitsInput)
  await change(actorOf(event), { kind: 'staff.habits' }, (tx) => setHabits(tx, who, habits))
  return findMe(await useDatabase(), who)
})
