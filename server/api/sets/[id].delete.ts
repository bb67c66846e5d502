import type { StudioSet } from '../../../shared/schemas/set'
import { useDatabase } from '../../db/use-database'
import { actorOf } from '../../http/actor'
import { failure } from '../../http/failure'
import { idParam } from '../../http/params'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { listSets, retireSet } from '../../repositories/sets'
import { change } from '../../write/use-change'

/** Offers a set of sites no longer. */
export default defineRoute({ access: 'lead', proof: 'second' }, async (event): Promise<StudioSet[]> => {
  const who = signedInAs(event)
  const sentence = 'There is no such set here.'
  const id = idParam(event, sentence)
  await change(actorOf(event), { kind: 'set.retired', subjectId: id }, async (tx) => {
    if (!(await retireSet(tx, who, id))) throw failure(404, sentence)
  })
  return listSets(await useDatabase(), who)
})
