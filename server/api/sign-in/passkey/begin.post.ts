import { useDatabase } from '../../../db/use-database'
import { failure } from '../../../http/failure'
import { askPasskey } from '../../../http/passkeys'
import { defineRoute } from '../../../http/route'
import { findStudioId } from '../../../repositories/staff'

/** What a browser proves with a passkey that somebody signs in with. */
export default defineRoute({ access: 'open' }, async (event) => {
  const studioId = await findStudioId(await useDatabase())
  if (studioId === null) throw failure(409, 'There is no studio here yet.')
  return askPasskey(event, { kind: 'system', studioId }, null)
})
