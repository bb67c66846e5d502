import { defineEventHandler } from 'h3'
import { studioInput } from '../../shared/schemas/account'
import { useDatabase } from '../db/use-database'
import { readJson } from '../http/body'
import { signedInAsLead } from '../http/signed-in'
import { changeStudio, findMe } from '../repositories/staff'

export default defineEventHandler(async (event) => {
  const who = signedInAsLead(event)
  const input = await readJson(event, studioInput)
  const db = await useDatabase()
  await changeStudio(db, who, input)
  return findMe(db, who)
})
