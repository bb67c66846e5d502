import { limitsOfIntake, planRefusals } from '../../../../../core/plan'
import { followedEnds } from '../../../../../shared/following'
import { planContext, targetOf } from '../../../../../shared/plan'
import { planInput, type PlanRecord } from '../../../../../shared/schemas/plan'
import { unitsOf } from '../../../../../shared/units-of'
import { useDatabase } from '../../../../db/use-database'
import { readJson } from '../../../../http/body'
import { requireEnergy } from '../../../../http/energy'
import { failure } from '../../../../http/failure'
import { clientAt } from '../../../../http/params'
import { signedInAs } from '../../../../http/signed-in'
import { findHistory } from '../../../../repositories/history'
import { addPlan, listPlans } from '../../../../repositories/plans'
import { findMe } from '../../../../repositories/staff'
import { localDay } from '../../../../../core/calendar'
import { actorOf } from '../../../../http/actor'
import { defineRoute } from '../../../../http/route'
import { change } from '../../../../write/use-change'

/** Keeps a plan that core does not refuse for this client; answers with all plans, newest first. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<PlanRecord[]> => {
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
  if (input.energy) await requireEnergy(event)
  const context = planContext(start, history, unitsOf(me), localDay(Date.now(), me.studio.timeZone))
  const refusals: { field: string; sentence: string }[] = planRefusals(targetOf(input), context)
  if (input.energy)
    for (const { stop, sentence } of limitsOfIntake(input.energy, targetOf(input), context))
      if (stop) refusals.push({ field: 'energy', sentence })
  const [first] = refusals
  if (first) {
    const fields = refusals.map(({ field, sentence }) => ({ field, message: sentence }))
    throw failure(422, first.sentence, fields)
  }
  const about = { clientId: client.id, checkinId: input.checkinId, subjectId: input.id }
  await change(actorOf(event), { kind: 'plan.added', ...about }, async (tx, unit) => {
    if ((await addPlan(tx, who, client.id, input)) === 0) unit.unchanged()
  })
  return listPlans(db, client.id)
})
