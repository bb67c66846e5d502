import { setResponseStatus } from 'h3'
import { suspensionDecision } from '../../../../../../shared/schemas/plan'
import type { Suspension } from '../../../../../../core/safety'
import { useDatabase } from '../../../../../db/use-database'
import { readJson } from '../../../../../http/body'
import { todayAt } from '../../../../../http/days'
import { failure } from '../../../../../http/failure'
import { clientAt, idParam } from '../../../../../http/params'
import { signedInAs } from '../../../../../http/signed-in'
import { addPlanDecision } from '../../../../../repositories/plans'
import { suspensionsOfClient } from '../../../../../repositories/suspensions'
import { actorOf } from '../../../../../http/actor'
import { defineRoute } from '../../../../../http/route'
import { change } from '../../../../../write/use-change'

/** Lets a suspended plan go on, with a reason on record. A stop of the gate is refused. Answers with what is suspended. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<Suspension[]> => {
  const client = await clientAt(event)
  const who = signedInAs(event)
  const unknown = 'There is no such plan that is suspended.'
  const planId = idParam(event, unknown, 'plan')
  const { id, reason } = await readJson(event, suspensionDecision)
  const today = todayAt(event)
  const suspended = (await suspensionsOfClient(await useDatabase(), who, client.id, today)).find(
    ({ about, subjectId }) => about === 'plan' && subjectId === planId,
  )
  if (!suspended) throw failure(404, unknown)
  if (!suspended.mayGoOn) throw failure(409, `This plan cannot go on. ${suspended.sentence}`)
  const decision = { id, planId, codes: [suspended.code], reason }
  await change(actorOf(event), { kind: 'plan.decided', clientId: client.id, subjectId: planId }, async (tx, unit) => {
    if ((await addPlanDecision(tx, who, decision)) === 0) unit.unchanged()
  })
  setResponseStatus(event, 201)
  return suspensionsOfClient(await useDatabase(), who, client.id, today)
})
