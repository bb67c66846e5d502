import { setResponseStatus } from 'h3'
import { staffInput } from '../../../shared/schemas/account'
import { readJson } from '../../http/body'
import { invite } from '../../http/invite'
import { defineRoute } from '../../http/route'

/** Adds a person, as an invitation does: nobody types a password for somebody else. */
export default defineRoute({ access: 'lead', proof: 'fresh' }, async (event) => {
  const { person, link } = await invite(event, await readJson(event, staffInput))
  setResponseStatus(event, 201)
  return { ...person, link }
})
