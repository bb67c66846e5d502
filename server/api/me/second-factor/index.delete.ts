import type { SecondFactorState } from '../../../../shared/schemas/account'
import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { keepsSecond } from '../../../http/second-factor'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { removeCode, secondFactorState } from '../../../repositories/second-factors'
import { change } from '../../../write/use-change'

/** Takes one's own second proof away. */
export default defineRoute({ access: 'recorder', proof: 'fresh' }, async (event): Promise<SecondFactorState> => {
  const who = signedInAs(event)
  await change(actorOf(event), { kind: 'factor.removed', subjectId: who.staffId }, async (tx, unit) => {
    if (!(await removeCode(tx, who.staffId))) return unit.unchanged()
    await keepsSecond(tx, who)
  })
  return secondFactorState(await useDatabase(), who.staffId)
})
