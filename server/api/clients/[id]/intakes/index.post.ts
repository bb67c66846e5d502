import { intakesInput, type IntakeRecord } from '../../../../../shared/schemas/following'
import { useDatabase } from '../../../../db/use-database'
import { readJson } from '../../../../http/body'
import { failure } from '../../../../http/failure'
import { clientAt } from '../../../../http/params'
import { signedInAs } from '../../../../http/signed-in'
import { DaysTaken } from '../../../../repositories/by-day'
import { addIntakes, listIntakes } from '../../../../repositories/intakes'
import { requireEnergy } from '../../../../http/energy'
import { isNeutral } from '../../../../../shared/neutral'
import { refuseFuture, todayAt } from '../../../../http/days'
import { actorOf } from '../../../../http/actor'
import { defineRoute } from '../../../../http/route'
import { change } from '../../../../write/use-change'

/** Stores days of intake, all or none, where the studio offers energy; answers with the whole log. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<IntakeRecord[]> => {
  const client = await clientAt(event)
  await requireEnergy(event)
  if (isNeutral(client, todayAt(event)))
    throw failure(409, 'Neutral mode: no log of what is eaten is kept for this client.')
  const input = await readJson(event, intakesInput)
  refuseFuture(event, Object.fromEntries(input.intakes.map(({ day }, i) => [`intakes.${i}.day`, day])))
  try {
    await change(actorOf(event), { kind: 'intakes.added', clientId: client.id }, async (tx, unit) => {
      if ((await addIntakes(tx, signedInAs(event), client.id, input)) === 0) unit.unchanged()
    })
  } catch (error) {
    if (!(error instanceof DaysTaken)) throw error
    throw failure(409, error.message, [{ field: 'day', message: error.message }])
  }
  return listIntakes(await useDatabase(), client.id)
})
