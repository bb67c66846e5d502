import { useDatabase } from '../db/use-database'
import { signedInAs } from '../http/signed-in'
import { defineRoute } from '../http/route'
import { findMe } from '../repositories/staff'

export default defineRoute({ access: 'recorder', proof: 'none' }, async (event) =>
  findMe(await useDatabase(), signedInAs(event)),
)
