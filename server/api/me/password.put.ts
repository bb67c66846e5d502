import { passwordChange } from '../../../shared/schemas/account'
import { actorOf } from '../../http/actor'
import { readJson } from '../../http/body'
import { proveOwnPassword } from '../../http/own-password'
import { hashInTurn, refuseWeak } from '../../http/password'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { endSessions } from '../../repositories/sessions'
import { setPassword } from '../../repositories/staff'
import { change } from '../../write/use-change'

/** Changes one's own password, with the old one. Every other session of this person ends. */
export default defineRoute({ access: 'recorder', proof: 'none' }, async (event) => {
  const who = signedInAs(event)
  const { old, password } = await readJson(event, passwordChange)
  const person = await proveOwnPassword(event, old, 'old')
  await refuseWeak(password, person.about)
  const passwordHash = await hashInTurn(password)
  await change(actorOf(event), { kind: 'password.changed' }, async (tx, unit) => {
    await setPassword(tx, who.staffId, passwordHash)
    unit.endSessions(await endSessions(tx, who.staffId, { but: who.sessionId }))
  })
  return { ok: true }
})
