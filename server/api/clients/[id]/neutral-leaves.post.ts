import { setResponseStatus } from 'h3'
import { neutralLeaveInput } from '../../../../shared/schemas/following'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { addNeutralLeave } from '../../../repositories/neutral-leaves'
import { change } from '../../../write/use-change'

/** Notes why somebody looks past a client's neutral mode. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const { id: clientId } = await clientAt(event)
  const input = await readJson(event, neutralLeaveInput)
  await change(actorOf(event), { kind: 'neutral.left', clientId, subjectId: input.id }, async (tx, unit) => {
    if ((await addNeutralLeave(tx, signedInAs(event), clientId, input)) === 0) unit.unchanged()
  })
  setResponseStatus(event, 201)
  return { ok: true }
})
