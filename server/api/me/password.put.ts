import { defineEventHandler } from 'h3'
import { passwordChange } from '../../../shared/schemas/account'
import { useDatabase } from '../../db/use-database'
import { actorOf } from '../../http/actor'
import { readJson } from '../../http/body'
import { failure } from '../../http/failure'
import { attemptSucceeded, countAttempt } from '../../http/guessing'
import { hashInTurn, isRight, refuseWeak } from '../../http/password'
import { signedInAs } from '../../http/signed-in'
import { endSessions } from '../../repositories/sessions'
import { findAboutPerson, setPassword } from '../../repositories/staff'
import { change } from '../../write/use-change'

/** Changes one's own password, with the old one. Every other session of this person ends. */
export default defineEventHandler(async (event) => {
  const who = signedInAs(event)
  const { old, password } = await readJson(event, passwordChange)
  const person = await findAboutPerson(await useDatabase(), who.staffId)
  if (!person) throw failure(401, 'Please sign in.')
  const tried = { account: `password of ${who.staffId}`, real: true, knownDevice: null }
  await countAttempt(event, tried)
  if (!(await isRight(person.passwordHash, old))) {
    const message = 'This is not your password.'
    throw failure(422, message, [{ field: 'old', message }])
  }
  await attemptSucceeded(event, tried)
  refuseWeak(password, person.about)
  const passwordHash = await hashInTurn(password)
  await change(actorOf(event), { kind: 'password.changed' }, async (tx, unit) => {
    await setPassword(tx, who.staffId, passwordHash)
    unit.endSessions(await endSessions(tx, who.staffId, { but: who.sessionId }))
  })
  return { ok: true }
})
