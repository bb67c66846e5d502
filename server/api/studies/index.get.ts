import { useDatabase } from '../../db/use-database'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { listStudies } from '../../repositories/studies'

/** The studio's studies. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) =>
  listStudies(await useDatabase(), signedInAs(event)),
)
