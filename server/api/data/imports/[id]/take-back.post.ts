import type { ImportLine } from '../../../../../shared/schemas/data'
import { useDatabase } from '../../../../db/use-database'
import { CannotTakeBack, listImports, takeBack } from '../../../../exchange/take-back'
import { actorOf } from '../../../../http/actor'
import { failure } from '../../../../http/failure'
import { idParam } from '../../../../http/params'
import { signedInAs } from '../../../../http/signed-in'
import { defineRoute } from '../../../../http/route'
import { change } from '../../../../write/use-change'

/** Takes a whole import back, unless something was built on it. */
export default defineRoute({ access: 'lead', proof: 'second' }, async (event): Promise<ImportLine[]> => {
  const who = signedInAs(event)
  const id = idParam(event, 'There is no such import here.')
  await change(actorOf(event), { kind: 'data.taken-back', subjectId: id }, (tx) => takeBack(tx, who, id)).catch(
    (error: unknown) => {
      throw error instanceof CannotTakeBack ? failure(409, error.message) : error
    },
  )
  return listImports(await useDatabase(), who)
})
