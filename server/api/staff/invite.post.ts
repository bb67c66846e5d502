import { addDays } from 'date-fns'
import { setResponseStatus } from 'h3'
import { v7 as uuid } from 'uuid'
import { inviteInput } from '../../../shared/schemas/account'
import { actorOf } from '../../http/actor'
import { ownOrigin } from '../../http/address'
import { readJson } from '../../http/body'
import { failure } from '../../http/failure'
import { hashOf, randomToken } from '../../http/tokens'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { addPasswordLink } from '../../repositories/password-links'
import { addStaff } from '../../repositories/staff'
import { change } from '../../write/use-change'

/** How long an invitation works, days. */
const DAYS = 7
/** No password hashes to this: until they have chosen one, nobody signs in. */
const NO_PASSWORD = 'none yet'

/** Invites a person: they choose their own password by the link, which is shown here and never again. */
export default defineRoute({ access: 'lead', proof: 'fresh' }, async (event) => {
  const who = signedInAs(event)
  const input = await readJson(event, inviteInput)
  const [id, token] = [uuid(), randomToken()]
  const link = { id: uuid(), staffId: id, tokenHash: hashOf(token), expiresAt: addDays(new Date(), DAYS).toISOString() }
  const person = await change(actorOf(event), { kind: 'staff.invited', subjectId: id }, async (tx) => {
    const added = await addStaff(tx, who, { id, ...input, passwordHash: NO_PASSWORD })
    const sentence = 'Somebody signs in with this address already.'
    if (!added) throw failure(409, sentence, [{ field: 'email', message: sentence }])
    await addPasswordLink(tx, who, link)
    return added
  })
  setResponseStatus(event, 201)
  return { person, link: `${ownOrigin(event)}/new-password#${token}` }
})
