import type { IntakeRecord } from '../../../../../shared/schemas/following'
import { useDatabase } from '../../../../db/use-database'
import { failure } from '../../../../http/failure'
import { clientAt, idParam } from '../../../../http/params'
import { strikeByDay } from '../../../../repositories/by-day'
import { intake } from '../../../../db/schema'
import { listIntakes } from '../../../../repositories/intakes'
import { actorOf } from '../../../../http/actor'
import { defineRoute } from '../../../../http/route'
import { change } from '../../../../write/use-change'

/** Strikes a day of intake; answers with the log without it. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<IntakeRecord[]> => {
  const client = await clientAt(event)
  const sentence = 'There is no such intake.'
  const subjectId = idParam(event, sentence, 'intake')
  await change(actorOf(event), { kind: 'intake.struck', clientId: client.id, subjectId }, async (tx) => {
    if (!(await strikeByDay(tx, intake, client.id, subjectId))) throw failure(404, sentence)
  })
  return listIntakes(await useDatabase(), client.id)
})
