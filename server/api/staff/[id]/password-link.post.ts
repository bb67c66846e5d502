import { setResponseStatus } from 'h3'
import { addHours } from 'date-fns'
import { v7 as uuid } from 'uuid'
import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { ownOrigin } from '../../../http/address'
import { failure } from '../../../http/failure'
import { idParam } from '../../../http/params'
import { hashOf, randomToken } from '../../../http/tokens'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { addPasswordLink } from '../../../repositories/password-links'
import { listStaff } from '../../../repositories/staff'
import { change } from '../../../write/use-change'

/** How long a link works, hours. */
const HOURS = 24

/** Makes a link by which a person chooses a new password, once. It is shown here and never again. */
export default defineRoute({ access: 'lead', proof: 'fresh' }, async (event) => {
  const who = signedInAs(event)
  const sentence = 'There is no such person here.'
  const staffId = idParam(event, sentence)
  const person = (await listStaff(await useDatabase(), who)).find(({ id }) => id === staffId)
  if (!person) throw failure(404, sentence)
  const token = randomToken()
  const expiresAt = addHours(new Date(), HOURS).toISOString()
  const link = { id: uuid(), staffId, tokenHash: hashOf(token), expiresAt }
  await change(actorOf(event), { kind: 'password.link', subjectId: staffId }, (tx) => addPasswordLink(tx, who, link))
  setResponseStatus(event, 201)
  // Behind the hash sign: it reaches no server's log.
  return { link: `${ownOrigin(event)}/new-password#${token}`, expiresAt }
})
