import { defineEventHandler } from 'h3'
import type { SecondFactorState } from '../../../../shared/schemas/account'
import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { signedInAs } from '../../../http/signed-in'
import { removeSecondFactor, secondFactorState } from '../../../repositories/second-factors'
import { change } from '../../../write/use-change'

/** Takes one's own second proof away. */
export default defineEventHandler(async (event): Promise<SecondFactorState> => {
  const who = signedInAs(event)
  await change(actorOf(event), { kind: 'factor.removed', subjectId: who.staffId }, async (tx, unit) => {
    if (!(await removeSecondFactor(tx, who, who.staffId))) unit.unchanged()
  })
  return secondFactorState(await useDatabase(), who.staffId)
})
