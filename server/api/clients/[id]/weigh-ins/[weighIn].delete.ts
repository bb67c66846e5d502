import { defineEventHandler } from 'h3'
import type { WeighInRecord } from '../../../../../shared/schemas/following'
import { useDatabase } from '../../../../db/use-database'
import { failure } from '../../../../http/failure'
import { clientAt, idParam } from '../../../../http/params'
import { listWeighIns, strikeWeighIn } from '../../../../repositories/weigh-ins'

/** Strikes a weigh-in; answers with the diary without it. */
export default defineEventHandler(async (event): Promise<WeighInRecord[]> => {
  const client = await clientAt(event)
  const sentence = 'There is no such weigh-in.'
  const db = await useDatabase()
  if (!(await strikeWeighIn(db, client.id, idParam(event, sentence, 'weighIn')))) throw failure(404, sentence)
  return listWeighIns(db, client.id)
})
