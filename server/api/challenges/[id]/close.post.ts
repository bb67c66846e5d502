import type { ChallengeFacts } from '../../../../shared/schemas/challenge'
import { actorOf } from '../../../http/actor'
import { challengeAt, challengeFacts } from '../../../http/challenges'
import { todayAt } from '../../../http/days'
import { failure } from '../../../http/failure'
import { randomToken } from '../../../http/tokens'
import { defineRoute } from '../../../http/route'
import { closeChallenge } from '../../../repositories/challenges'
import { change } from '../../../write/use-change'

/** Closes a challenge: its places stand, and a draw is drawn. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<ChallengeFacts> => {
  const { id, endsOn } = await challengeAt(event)
  if (todayAt(event) < endsOn) throw failure(409, 'This challenge runs until its last day.')
  await change(actorOf(event), { kind: 'challenge.closed', subjectId: id }, async (tx, unit) => {
    if (!(await closeChallenge(tx, id, randomToken()))) unit.unchanged()
  })
  return challengeFacts(event)
})
