import { defineEventHandler } from 'h3'
import { ownUnitsInput } from '../../shared/schemas/account'
import { useDatabase } from '../db/use-database'
import { readJson } from '../http/body'
import { signedInAs } from '../http/signed-in'
import { findMe, setOwnUnits } from '../repositories/staff'

export default defineEventHandler(async (event) => {
  const who = signedInAs(event)
  const units = await readJson(event, ownUnitsInput)
  const db = await useDatabase()
  await setOwnUnits(db, who, units)
  return findMe(db, who)
})
