import { defineEventHandler, getRouterParam, setResponseStatus } from 'h3'
import { z } from 'zod'
import { caliperCheckInput } from '../../../../shared/schemas/caliper'
import { useDatabase } from '../../../db/use-database'
import { readJson } from '../../../http/body'
import { failure } from '../../../http/failure'
import { signedInAs } from '../../../http/signed-in'
import { checkCaliper, listCalipers } from '../../../repositories/calipers'

/** Notes a check of a caliper against its block. */
export default defineEventHandler(async (event) => {
  const who = signedInAs(event)
  const input = await readJson(event, caliperCheckInput)
  const id = z.uuid().safeParse(getRouterParam(event, 'id'))
  const db = await useDatabase()
  if (!id.success || !(await checkCaliper(db, who, id.data, input))) throw failure(404, 'There is no such caliper.')
  setResponseStatus(event, 201)
  return listCalipers(db, who)
})
