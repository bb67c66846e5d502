import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { failure } from '../../../http/failure'
import { askNewPasskey } from '../../../http/passkeys'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { findPerson } from '../../../repositories/staff'

/** What one's browser makes a new passkey of. */
export default defineRoute({ access: 'recorder', proof: 'fresh', beforeSecond: true }, async (event) => {
  const { staffId } = signedInAs(event)
  const person = await findPerson(await useDatabase(), staffId)
  if (!person) throw failure(401, 'Please sign in.')
  return askNewPasskey(event, actorOf(event), { staffId, ...person })
})
