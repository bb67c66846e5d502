import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { failure } from '../../../http/failure'
import { askPasskey } from '../../../http/passkeys'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { passkeyIds } from '../../../repositories/passkeys'

/** What one's own passkey is asked to prove once more. */
export default defineRoute({ access: 'recorder', proof: 'none' }, async (event) => {
  const { staffId } = signedInAs(event)
  if ((await passkeyIds(await useDatabase(), staffId)).length === 0) throw failure(409, 'There is no passkey yet.')
  return askPasskey(event, actorOf(event), staffId)
})
