import { setResponseStatus } from 'h3'
import { BARRED_WORDS } from '../../../../../core/challenge'
import { entryInput, type ChallengeFacts } from '../../../../../shared/schemas/challenge'
import { useDatabase } from '../../../../db/use-database'
import { actorOf } from '../../../../http/actor'
import { readJson } from '../../../../http/body'
import { challengeAt, challengeFacts } from '../../../../http/challenges'
import { refuseFuture, todayAt } from '../../../../http/days'
import { failure } from '../../../../http/failure'
import { signedInAs } from '../../../../http/signed-in'
import { defineRoute } from '../../../../http/route'
import { barredClient } from '../../../../repositories/challenge-facts'
import { addEntry, isEntered } from '../../../../repositories/challenges'
import { findClient } from '../../../../repositories/clients'
import { change } from '../../../../write/use-change'

/** Enters somebody who agreed; refused where losing is not for them, with why for their coach only. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<ChallengeFacts> => {
  const stored = await challengeAt(event)
  const input = await readJson(event, entryInput)
  refuseFuture(event, { consentOn: input.consentOn })
  if (stored.closedAt) throw failure(409, 'This challenge is closed.')
  const who = signedInAs(event)
  const db = await useDatabase()
  const client = await findClient(db, who, input.clientId)
  const unknown = 'There is no such client.'
  if (!client || client.archived) throw failure(422, unknown, [{ field: 'clientId', message: unknown }])
  if (input.team !== null && !stored.teams.includes(input.team)) {
    const message = 'There is no such team.'
    throw failure(422, message, [{ field: 'team', message }])
  }
  const barred = await barredClient(db, who, client, todayAt(event))
  if (barred) throw failure(409, BARRED_WORDS[barred], [{ field: 'clientId', message: BARRED_WORDS[barred] }])
  const about = { clientId: client.id, subjectId: input.id }
  await change(actorOf(event), { kind: 'challenge.entered', ...about }, async (tx, unit) => {
    // Two coaches may enter them at once: they take part once.
    if (await isEntered(tx, stored.id, client.id)) return unit.unchanged()
    if ((await addEntry(tx, who, stored.id, input)) === 0) unit.unchanged()
  })
  if (!(await isEntered(db, stored.id, client.id))) throw failure(409, 'They have left this challenge.')
  setResponseStatus(event, 201)
  return challengeFacts(event)
})
