import { useDatabase } from '../../../../db/use-database'
import { clientAt } from '../../../../http/params'
import { defineRoute } from '../../../../http/route'
import { listOther } from '../../../../repositories/other-methods'

/** What other methods said of a client. */
export default defineRoute({ access: 'coach', proof: 'second', looked: 'client' }, async (event) =>
  listOther(await useDatabase(), (await clientAt(event)).id),
)
