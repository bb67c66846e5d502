import { useDatabase } from '../../db/use-database'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { listRounds } from '../../repositories/drills'

/** One's own rounds of drills. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) =>
  listRounds(await useDatabase(), signedInAs(event).staffId),
)
