import type { FromHome } from '../../../../shared/schemas/link'
import { useDatabase } from '../../../db/use-database'
import { clientAt } from '../../../http/params'
import { defineRoute } from '../../../http/route'
import { findFromHome } from '../../../repositories/client-home'

/** What a client hands in from afar, their link and their reminders. */
export default defineRoute({ access: 'coach', proof: 'second', looked: 'client' }, async (event): Promise<FromHome> =>
  findFromHome(await useDatabase(), await clientAt(event)),
)
