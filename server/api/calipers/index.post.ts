import { defineEventHandler, setResponseStatus } from 'h3'
import { caliperInput } from '../../../shared/schemas/caliper'
import { useDatabase } from '../../db/use-database'
import { readJson } from '../../http/body'
import { signedInAs } from '../../http/signed-in'
import { addCaliper, listCalipers } from '../../repositories/calipers'

export default defineEventHandler(async (event) => {
  const who = signedInAs(event)
  const input = await readJson(event, caliperInput)
  const db = await useDatabase()
  await addCaliper(db, who, input)
  setResponseStatus(event, 201)
  return listCalipers(db, who)
})
