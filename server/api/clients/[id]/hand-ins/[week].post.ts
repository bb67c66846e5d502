import { useDatabase } from '../../../../db/use-database'
import { actorOf } from '../../../../http/actor'
import { failure } from '../../../../http/failure'
import { clientAt, idParam } from '../../../../http/params'
import { signedInAs } from '../../../../http/signed-in'
import { defineRoute } from '../../../../http/route'
import { isOwnHandIn, markSeen } from '../../../../repositories/hand-ins'
import { change } from '../../../../write/use-change'

/** Notes that a coach has looked at a week. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const client = await clientAt(event)
  const sentence = 'There is no such week.'
  const id = idParam(event, sentence, 'week')
  if (!(await isOwnHandIn(await useDatabase(), client.id, id))) throw failure(404, sentence)
  await change(actorOf(event), { kind: 'handin.seen', clientId: client.id, subjectId: id }, async (tx, unit) => {
    if (!(await markSeen(tx, signedInAs(event), client.id, id))) unit.unchanged()
  })
  return { ok: true }
})
