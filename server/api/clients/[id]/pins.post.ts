import { pinInput, type PinnedStart } from '../../../../shared/schemas/following'
import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { failure } from '../../../http/failure'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { addPin, isCheckinOf, listPins } from '../../../repositories/pins'
import { change } from '../../../write/use-change'

/** Pins the check-in a client is followed from, known or the next; answers with all pins, newest first. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<PinnedStart[]> => {
  const client = await clientAt(event)
  const input = await readJson(event, pinInput)
  if (input.checkinId !== null && !(await isCheckinOf(await useDatabase(), client.id, input.checkinId))) {
    const message = 'This client has no such check-in.'
    throw failure(422, message, [{ field: 'checkinId', message }])
  }
  const about = {
    clientId: client.id,
    subjectId: input.id,
    ...(input.checkinId ? { checkinId: input.checkinId } : {}),
  }
  await change(actorOf(event), { kind: 'start.pinned', ...about }, async (tx, unit) => {
    if ((await addPin(tx, signedInAs(event), client.id, input)) === 0) unit.unchanged()
  })
  return listPins(await useDatabase(), client.id)
})
