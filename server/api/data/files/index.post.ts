import { defineEventHandler, getQuery, setResponseStatus } from 'h3'
import { fileName } from '../../../../shared/schemas/data'
import { parsed } from '../../../http/body'
import { keepFile } from '../../../http/data-files'
import { signedInAsLead } from '../../../http/signed-in'

/** Takes a file to be looked through. Nothing of it is stored yet. */
export default defineEventHandler(async (event): Promise<{ id: string }> => {
  const who = signedInAsLead(event)
  const { name } = parsed(fileName, getQuery(event))
  const id = await keepFile(event, who.studioId, name)
  setResponseStatus(event, 201)
  return { id }
})
