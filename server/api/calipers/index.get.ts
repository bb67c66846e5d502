import { useDatabase } from '../../db/use-database'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { listCalipers } from '../../repositories/calipers'

export default defineRoute({ access: 'coach', proof: 'second' }, async (event) =>
  listCalipers(await useDatabase(), signedInAs(event)),
)
