import { linkToken, type LinkDoor } from '../../../shared/schemas/link'
import { readJson } from '../../http/body'
import { linkOfToken } from '../../http/link-of-token'
import { defineRoute } from '../../http/route'

/** What stands behind a client's link before its PIN: a first name and the studio's, nothing else. */
export default defineRoute({ access: 'open' }, async (event): Promise<LinkDoor> => {
  const { token } = await readJson(event, linkToken)
  const { clientName, studioName, pinHash } = await linkOfToken(event, token)
  const firstName = clientName.split(' ')[0] ?? ''
  return { studioName, firstName, pin: pinHash === null ? 'choose' : 'give' }
})
