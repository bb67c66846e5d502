import { setResponseStatus } from 'h3'
import { trainingPlanInput } from '../../../shared/schemas/progress'
import { useDatabase } from '../../db/use-database'
import { actorOf } from '../../http/actor'
import { readJson } from '../../http/body'
import { todayAt } from '../../http/days'
import { failure } from '../../http/failure'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { addTrainingPlan, findProgress } from '../../repositories/progress'
import { listStaff } from '../../repositories/staff'
import { change } from '../../write/use-change'

/** A lead sets how many people an assessor is to measure by a day. */
export default defineRoute({ access: 'lead', proof: 'second' }, async (event) => {
  const who = signedInAs(event)
  const input = await readJson(event, trainingPlanInput)
  const refuse = (field: string, message: string) => failure(422, message, [{ field, message }])
  const fromDay = todayAt(event)
  if (input.byDay <= fromDay) throw refuse('byDay', 'This day has come already: give a later one.')
  const db = await useDatabase()
  if (!(await listStaff(db, who)).some(({ id }) => id === input.staffId))
    throw refuse('staffId', 'This person does not work here.')
  await change(actorOf(event), { kind: 'training.planned', subjectId: input.staffId }, async (tx, unit) => {
    if ((await addTrainingPlan(tx, who, { ...input, fromDay })) === 0) unit.unchanged()
  })
  setResponseStatus(event, 201)
  return findProgress(db, who)
})
