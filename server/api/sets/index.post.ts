import { setResponseStatus } from 'h3'
import { setInput, type StudioSet } from '../../../shared/schemas/set'
import { useDatabase } from '../../db/use-database'
import { actorOf } from '../../http/actor'
import { readJson } from '../../http/body'
import { failure } from '../../http/failure'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { addSet, ForeignSet, listSets } from '../../repositories/sets'
import { change } from '../../write/use-change'

/** Makes a set of sites, or a new version of one. */
export default defineRoute({ access: 'lead', proof: 'second' }, async (event): Promise<StudioSet[]> => {
  const who = signedInAs(event)
  const input = await readJson(event, setInput)
  try {
    await change(actorOf(event), { kind: 'set.made', subjectId: input.id }, async (tx, unit) => {
      if ((await addSet(tx, who, input)) === 0) unit.unchanged()
    })
  } catch (error) {
    if (error instanceof ForeignSet) throw failure(404, error.message)
    throw error
  }
  setResponseStatus(event, 201)
  return listSets(await useDatabase(), who)
})
