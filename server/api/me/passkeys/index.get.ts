import { useDatabase } from '../../../db/use-database'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { listPasskeys } from '../../../repositories/passkeys'

/** One's own passkeys. */
export default defineRoute({ access: 'recorder', proof: 'none' }, async (event) =>
  listPasskeys(await useDatabase(), signedInAs(event).staffId),
)
