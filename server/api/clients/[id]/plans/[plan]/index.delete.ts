import type { PlanRecord } from '../../../../../../shared/schemas/plan'
import { useDatabase } from '../../../../../db/use-database'
import { failure } from '../../../../../http/failure'
import { clientAt, idParam } from '../../../../../http/params'
import { endPlan, listPlans } from '../../../../../repositories/plans'
import { actorOf } from '../../../../../http/actor'
import { defineRoute } from '../../../../../http/route'
import { change } from '../../../../../write/use-change'

/** Ends a plan, which stays on record; answers with all plans, newest first. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<PlanRecord[]> => {
  const client = await clientAt(event)
  const sentence = 'There is no such plan under way.'
  const subjectId = idParam(event, sentence, 'plan')
  await change(actorOf(event), { kind: 'plan.ended', clientId: client.id, subjectId }, async (tx) => {
    if (!(await endPlan(tx, client.id, subjectId))) throw failure(404, sentence)
  })
  return listPlans(await useDatabase(), client.id)
})
