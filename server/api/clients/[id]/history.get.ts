import type { ClientHistory } from '../../../../shared/schemas/following'
import { useDatabase } from '../../../db/use-database'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { findHistory } from '../../../repositories/history'
import { openingOf } from '../../../repositories/opening'

/** The client with every fact about them; the page computes what it shows, but for a long chart’s first points. */
export default defineRoute(
  { access: 'coach', proof: 'second', looked: 'client' },
  async (event): Promise<ClientHistory> => {
    const client = await clientAt(event)
    const history = await findHistory(await useDatabase(), signedInAs(event), client)
    const opening = openingOf(history)
    return { ...history, ...(opening ? { opening } : {}) }
  },
)
