import { addDays } from 'date-fns'
import type { H3Event } from 'h3'
import { v7 as uuid } from 'uuid'
import type { InviteInput, StaffMember } from '../../shared/schemas/account'
import { addPasswordLink } from '../repositories/password-links'
import { addStaff } from '../repositories/staff'
import { change } from '../write/use-change'
import { actorOf } from './actor'
import { ownOrigin } from './address'
import { failure } from './failure'
import { signedInAs } from './signed-in'
import { hashOf, randomToken } from './tokens'

/** How long an invitation works, days. */
const DAYS = 7
/** No password hashes to this: until they have chosen one, nobody signs in. */
const NO_PASSWORD = 'none yet'

/** Adds a person who chooses their own password by a link, which is shown once. Throws 409 for an address in use. */
export async function invite(event: H3Event, input: InviteInput): Promise<{ person: StaffMember; link: string }> {
  const who = signedInAs(event)
  const [id, token] = [uuid(), randomToken()]
  const link = { id: uuid(), staffId: id, tokenHash: hashOf(token), expiresAt: addDays(new Date(), DAYS).toISOString() }
  const person = await change(actorOf(event), { kind: 'staff.invited', subjectId: id }, async (tx) => {
    const added = await addStaff(tx, who, { id, ...input, passwordHash: NO_PASSWORD })
    const sentence = 'Somebody signs in with this address already.'
    if (!added) throw failure(409, sentence, [{ field: 'email', message: sentence }])
    await addPasswordLink(tx, who, link)
    return added
  })
  return { person, link: `${ownOrigin(event)}/new-password#${token}` }
}
