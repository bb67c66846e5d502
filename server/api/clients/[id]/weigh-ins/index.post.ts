import { weighInsInput, type WeighInRecord } from '../../../../../shared/schemas/following'
import { useDatabase } from '../../../../db/use-database'
import { readJson } from '../../../../http/body'
import { failure } from '../../../../http/failure'
import { clientAt } from '../../../../http/params'
import { signedInAs } from '../../../../http/signed-in'
import { DaysTaken } from '../../../../repositories/by-day'
import { addWeighIns, listWeighIns } from '../../../../repositories/weigh-ins'
import { refuseFuture } from '../../../../http/days'
import { actorOf } from '../../../../http/actor'
import { defineRoute } from '../../../../http/route'
import { change } from '../../../../write/use-change'

/** Stores weigh-ins, all or none; answers with the whole diary. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<WeighInRecord[]> => {
  const client = await clientAt(event)
  const input = await readJson(event, weighInsInput)
  refuseFuture(event, Object.fromEntries(input.weighIns.map(({ day }, i) => [`weighIns.${i}.day`, day])))
  try {
    await change(actorOf(event), { kind: 'weighins.added', clientId: client.id }, async (tx, unit) => {
      if ((await addWeighIns(tx, signedInAs(event), client.id, input)) === 0) unit.unchanged()
    })
  } catch (error) {
    if (!(error instanceof DaysTaken)) throw error
    throw failure(409, error.message, [{ field: 'day', message: error.message }])
  }
  return listWeighIns(await useDatabase(), client.id)
})
