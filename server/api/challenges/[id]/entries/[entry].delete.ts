import type { ChallengeFacts } from '../../../../../shared/schemas/challenge'
import { actorOf } from '../../../../http/actor'
import { challengeAt, challengeFacts } from '../../../../http/challenges'
import { failure } from '../../../../http/failure'
import { idParam } from '../../../../http/params'
import { defineRoute } from '../../../../http/route'
import { leaveChallenge } from '../../../../repositories/challenges'
import { change } from '../../../../write/use-change'

/** Somebody leaves: at once, and without a word on the board. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<ChallengeFacts> => {
  const stored = await challengeAt(event)
  const sentence = 'They do not take part.'
  const id = idParam(event, sentence, 'entry')
  const { entries } = await challengeFacts(event)
  if (!entries.some((one) => one.id === id && one.clientId !== null)) throw failure(404, sentence)
  await change(actorOf(event), { kind: 'challenge.left', subjectId: id }, async (tx) => {
    if (!(await leaveChallenge(tx, stored.id, id))) throw failure(404, sentence)
  })
  return challengeFacts(event)
})
