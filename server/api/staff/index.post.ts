import { defineEventHandler, setResponseStatus } from 'h3'
import { staffInput } from '../../../shared/schemas/account'
import { useDatabase } from '../../db/use-database'
import { readJson } from '../../http/body'
import { failure } from '../../http/failure'
import { signedInAsLead } from '../../http/signed-in'
import { addStaff } from '../../repositories/staff'

export default defineEventHandler(async (event) => {
  const who = signedInAsLead(event)
  const { password, ...input } = await readJson(event, staffInput)
  const added = await addStaff(await useDatabase(), who, { ...input, passwordHash: await hashPassword(password) })
  const sentence = 'Somebody signs in with this address already.'
  if (!added) throw failure(409, sentence, [{ field: 'email', message: sentence }])
  setResponseStatus(event, 201)
  return added
})
