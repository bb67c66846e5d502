import { defineEventHandler } from 'h3'
import { weighInsInput, type WeighInRecord } from '../../../../../shared/schemas/following'
import { useDatabase } from '../../../../db/use-database'
import { readJson } from '../../../../http/body'
import { failure } from '../../../../http/failure'
import { clientAt } from '../../../../http/params'
import { signedInAs } from '../../../../http/signed-in'
import { addWeighIns, DaysTaken, listWeighIns } from '../../../../repositories/weigh-ins'

/** Stores weigh-ins, all or none; answers with the whole diary. */
export default defineEventHandler(async (event): Promise<WeighInRecord[]> => {
  const client = await clientAt(event)
  const input = await readJson(event, weighInsInput)
  const db = await useDatabase()
  try {
    await addWeighIns(db, signedInAs(event), client.id, input)
  } catch (error) {
    if (!(error instanceof DaysTaken)) throw error
    throw failure(409, error.message, [{ field: 'day', message: error.message }])
  }
  return listWeighIns(db, client.id)
})
