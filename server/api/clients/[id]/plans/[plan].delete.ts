import { defineEventHandler } from 'h3'
import type { PlanRecord } from '../../../../../shared/schemas/plan'
import { useDatabase } from '../../../../db/use-database'
import { failure } from '../../../../http/failure'
import { clientAt, idParam } from '../../../../http/params'
import { endPlan, listPlans } from '../../../../repositories/plans'

/** Ends a plan, which stays on record; answers with all plans, newest first. */
export default defineEventHandler(async (event): Promise<PlanRecord[]> => {
  const client = await clientAt(event)
  const sentence = 'There is no such plan under way.'
  const db = await useDatabase()
  if (!(await endPlan(db, client.id, idParam(event, sentence, 'plan')))) throw failure(404, sentence)
  return listPlans(db, client.id)
})
