import { caliperChange } from '../../../../shared/schemas/caliper'
import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { failure } from '../../../http/failure'
import { idParam } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { registerOf, retireCaliper } from '../../../repositories/calipers'
import { change } from '../../../write/use-change'

/** Puts a caliper away, or takes it out again. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const who = signedInAs(event)
  const sentence = 'There is no such caliper.'
  const id = idParam(event, sentence)
  const { retired } = await readJson(event, caliperChange)
  await change(actorOf(event), { kind: 'caliper.retired', subjectId: id }, async (tx) => {
    if (!(await retireCaliper(tx, who, id, retired))) throw failure(404, sentence)
  })
  return registerOf(await useDatabase(), who)
})
