import { defineEventHandler } from 'h3'
import { habitsInput } from '../../../shared/schemas/account'
import { useDatabase } from '../../db/use-database'
import { readJson } from '../../http/body'
import { signedInAs } from '../../http/signed-in'
import { findMe, setHabits } from '../../repositories/staff'

export default defineEventHandler(async (event) => {
  const who = signedInAs(event)
  const habits = await readJson(event, habitsInput)
  const db = await useDatabase()
  await setHabits(db, who, habits)
  return findMe(db, who)
})
