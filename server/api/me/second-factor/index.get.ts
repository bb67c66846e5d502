import type { SecondFactorState } from '../../../../shared/schemas/account'
import { useDatabase } from '../../../db/use-database'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { secondFactorState } from '../../../repositories/second-factors'

/** Whether one's own account asks for a second proof. */
export default defineRoute({ access: 'recorder', proof: 'none' }, async (event): Promise<SecondFactorState> =>
  secondFactorState(await useDatabase(), signedInAs(event).staffId),
)
