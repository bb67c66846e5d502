import { setResponseStatus } from 'h3'
import { v7 as uuid } from 'uuid'
import { staffInput } from '../../../shared/schemas/account'
import { actorOf } from '../../http/actor'
import { readJson } from '../../http/body'
import { failure } from '../../http/failure'
import { hashInTurn, refuseWeak } from '../../http/password'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { addStaff } from '../../repositories/staff'
import { change } from '../../write/use-change'

export default defineRoute({ access: 'lead', proof: 'fresh' }, async (event) => {
  const who = signedInAs(event)
  const { password, ...input } = await readJson(event, staffInput)
  await refuseWeak(password, [input.name, input.email])
  const passwordHash = await hashInTurn(password)
  const id = uuid()
  const added = await change(actorOf(event), { kind: 'staff.added', subjectId: id }, async (tx) => {
    const person = await addStaff(tx, who, { id, ...input, passwordHash })
    const sentence = 'Somebody signs in with this address already.'
    if (!person) throw failure(409, sentence, [{ field: 'email', message: sentence }])
    return person
  })
  setResponseStatus(event, 201)
  return added
})
