import type { WeighInRecord } from '../../../../../shared/schemas/following'
import { useDatabase } from '../../../../db/use-database'
import { failure } from '../../../../http/failure'
import { clientAt, idParam } from '../../../../http/params'
import { strikeByDay } from '../../../../repositories/by-day'
import { weighIn } from '../../../../db/schema'
import { listWeighIns } from '../../../../repositories/weigh-ins'
import { actorOf } from '../../../../http/actor'
import { defineRoute } from '../../../../http/route'
import { change } from '../../../../write/use-change'

/** Strikes a weigh-in; answers with the diary without it. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<WeighInRecord[]> => {
  const client = await clientAt(event)
  const sentence = 'There is no such weigh-in.'
  const subjectId = idParam(event, sentence, 'weighIn')
  await change(actorOf(event), { kind: 'weighin.struck', clientId: client.id, subjectId }, async (tx) => {
    if (!(await strikeByDay(tx, weighIn, client.id, subjectId))) throw failure(404, sentence)
  })
  return listWeighIns(await useDatabase(), client.id)
})
