import { useDatabase } from '../../db/use-database'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { registerOf } from '../../repositories/calipers'

/** Every caliper with everything that was ever checked. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) =>
  registerOf(await useDatabase(), signedInAs(event)),
)
