import { setResponseStatus } from 'h3'
import { challengeInput, type ChallengeRecord } from '../../../shared/schemas/challenge'
import { useDatabase } from '../../db/use-database'
import { actorOf } from '../../http/actor'
import { readJson } from '../../http/body'
import { todayAt } from '../../http/days'
import { failure } from '../../http/failure'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { addChallenge, listChallenges } from '../../repositories/challenges'
import { change } from '../../write/use-change'

/** Sets up a challenge. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<ChallengeRecord[]> => {
  const who = signedInAs(event)
  const input = await readJson(event, challengeInput)
  if (input.endsOn < todayAt(event)) {
    const message = 'These days have been: give a challenge that is still to come.'
    throw failure(422, message, [{ field: 'endsOn', message }])
  }
  await change(actorOf(event), { kind: 'challenge.made', subjectId: input.id }, async (tx, unit) => {
    if ((await addChallenge(tx, who, input)) === 0) unit.unchanged()
  })
  setResponseStatus(event, 201)
  return listChallenges(await useDatabase(), who)
})
