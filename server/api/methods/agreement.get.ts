import { useDatabase } from '../../db/use-database'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { methodAgreements } from '../../repositories/other-methods'

/** How other methods' devices agree with the folds, over the studio's clients. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) =>
  methodAgreements(await useDatabase(), signedInAs(event)),
)
