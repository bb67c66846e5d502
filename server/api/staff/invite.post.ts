import { setResponseStatus } from 'h3'
import { inviteInput } from '../../../shared/schemas/account'
import { readJson } from '../../http/body'
import { invite } from '../../http/invite'
import { defineRoute } from '../../http/route'

/** Invites a person: they choose their own password by the link, which is shown here and never again. */
export default defineRoute({ access: 'lead', proof: 'fresh' }, async (event) => {
  const invited = await invite(event, await readJson(event, inviteInput))
  setResponseStatus(event, 201)
  return invited
})
