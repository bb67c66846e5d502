import { defineEventHandler } from 'h3'
import { planRefusals } from '../../../../../core/plan'
import { followedEnds } from '../../../../../shared/following'
import { planContext, targetOf } from '../../../../../shared/plan'
import { planInput, type PlanRecord } from '../../../../../shared/schemas/plan'
import { unitsOf } from '../../../../../shared/units-of'
import { useDatabase } from '../../../../db/use-database'
import { readJson } from '../../../../http/body'
import { failure } from '../../../../http/failure'
import { clientAt } from '../../../../http/params'
import { signedInAs } from '../../../../http/signed-in'
import { findHistory } from '../../../../repositories/history'
import { addPlan, listPlans } from '../../../../repositories/plans'
import { findMe } from '../../../../repositories/staff'

/** Keeps a plan that core does not refuse for this client; answers with all plans, newest first. */
export default defineEventHandler(async (event): Promise<PlanRecord[]> => {
  const client = await clientAt(event)
  const input = await readJson(event, planInput)
  const who = signedInAs(event)
  const db = await useDatabase()
  const me = await findMe(db, who)
  if (!me) throw failure(401, 'Please sign in.')
  const history = await findHistory(db, who, client)
  const record = history.checkins.find(({ id, finishedAt }) => id === input.checkinId && finishedAt !== null)
  const [start] = record ? followedEnds([record], history) : []
  if (!start) {
    const message = 'A plan starts from a finished check-in of this client.'
    throw failure(422, message, [{ field: 'checkinId', message }])
  }
  const refusals = planRefusals(targetOf(input), planContext(start, history, unitsOf(me)))
  const [first] = refusals
  if (first) {
    const fields = refusals.map(({ field, sentence }) => ({ field, message: sentence }))
    throw failure(422, first.sentence, fields)
  }
  await addPlan(db, who, client.id, input)
  return listPlans(db, client.id)
})
