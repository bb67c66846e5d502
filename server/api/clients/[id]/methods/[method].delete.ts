import { useDatabase } from '../../../../db/use-database'
import { actorOf } from '../../../../http/actor'
import { failure } from '../../../../http/failure'
import { clientAt, idParam } from '../../../../http/params'
import { defineRoute } from '../../../../http/route'
import { listOther, strikeOther } from '../../../../repositories/other-methods'
import { change } from '../../../../write/use-change'

/** Strikes what another method said; the fact stays in the database. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const { id: clientId } = await clientAt(event)
  const sentence = 'There is no such measurement.'
  const id = idParam(event, sentence, 'method')
  await change(actorOf(event), { kind: 'method.struck', clientId, subjectId: id }, async (tx) => {
    if (!(await strikeOther(tx, clientId, id))) throw failure(404, sentence)
  })
  return listOther(await useDatabase(), clientId)
})
