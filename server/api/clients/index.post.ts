import { defineEventHandler, setResponseStatus } from 'h3'
import { newClientInput } from '../../../shared/schemas/client'
import { useDatabase } from '../../db/use-database'
import { readJson } from '../../http/body'
import { failure } from '../../http/failure'
import { signedInAs } from '../../http/signed-in'
import { addClient } from '../../repositories/clients'

export default defineEventHandler(async (event) => {
  const input = await readJson(event, newClientInput)
  const added = await addClient(await useDatabase(), signedInAs(event), input)
  if (!added) throw failure(409, 'This id is taken.', [{ field: 'id', message: 'This id is taken.' }])
  setResponseStatus(event, 201)
  return added
})
