import { getQuery, setResponseStatus } from 'h3'
import { fileName } from '../../../../shared/schemas/data'
import { parsed } from '../../../http/body'
import { keepFile } from '../../../http/data-files'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'

/** Takes a file to be looked through. Nothing of it is stored yet. */
export default defineRoute({ access: 'lead', proof: 'second' }, async (event): Promise<{ id: string }> => {
  const who = signedInAs(event)
  const { name } = parsed(fileName, getQuery(event))
  const id = await keepFile(event, who.studioId, name)
  setResponseStatus(event, 201)
  return { id }
})
