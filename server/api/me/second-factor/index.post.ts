import { setResponseStatus } from 'h3'
import type { SecondFactorBegun } from '../../../../shared/schemas/account'
import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { failure } from '../../../http/failure'
import { newSecret } from '../../../http/second-factor'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { beginSecondFactor } from '../../../repositories/second-factors'
import { findMe } from '../../../repositories/staff'
import { change } from '../../../write/use-change'

/** Makes a secret for one's own phone; it counts once the first code was right. */
export default defineRoute(
  { access: 'recorder', proof: 'fresh', beforeSecond: true },
  async (event): Promise<SecondFactorBegun> => {
    const who = signedInAs(event)
    const me = await findMe(await useDatabase(), who)
    if (!me) throw failure(401, 'Please sign in.')
    const { secret, stored, uri } = newSecret(who.staffId, me.staff.email)
    const begun = await change(actorOf(event), { kind: 'factor.step' }, (tx) =>
      beginSecondFactor(tx, who.staffId, stored),
    )
    if (!begun) throw failure(409, 'A second proof is on already: take it away before another one is set up.')
    setResponseStatus(event, 201)
    return { secret, uri }
  },
)
