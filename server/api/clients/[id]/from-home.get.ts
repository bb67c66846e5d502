import type { FromHome } from '../../../../shared/schemas/link'
import { useDatabase } from '../../../db/use-database'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { todayAt } from '../../../http/days'
import { defineRoute } from '../../../http/route'
import { findFromHome } from '../../../repositories/client-home'

/** What a client hands in from afar, their link and their reminders. */
export default defineRoute({ access: 'coach', proof: 'second', looked: 'client' }, async (event): Promise<FromHome> =>
  findFromHome(await useDatabase(), signedInAs(event), await clientAt(event), todayAt(event)),
)
