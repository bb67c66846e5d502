import { defineEventHandler } from 'h3'
import { confirmInput } from '../../../shared/schemas/account'
import { useDatabase } from '../../db/use-database'
import { actorOf } from '../../http/actor'
import { readJson } from '../../http/body'
import { failure } from '../../http/failure'
import { attemptSucceeded, countAttempt } from '../../http/guessing'
import { isRight } from '../../http/password'
import { signedInAs } from '../../http/signed-in'
import { noteConfirmed } from '../../repositories/sessions'
import { findAboutPerson } from '../../repositories/staff'
import { change } from '../../write/use-change'

/** Proves anew who somebody is, for what is guarded. */
export default defineEventHandler(async (event) => {
  const who = signedInAs(event)
  const { password } = await readJson(event, confirmInput)
  const person = await findAboutPerson(await useDatabase(), who.staffId)
  if (!person) throw failure(401, 'Please sign in.')
  const tried = { account: `password of ${who.staffId}`, real: true, knownDevice: null }
  await countAttempt(event, tried)
  if (!(await isRight(person.passwordHash, password))) {
    const message = 'This is not your password.'
    throw failure(422, message, [{ field: 'password', message }])
  }
  await attemptSucceeded(event, tried)
  await change(actorOf(event), { kind: 'session.confirmed' }, (tx) => noteConfirmed(tx, who.sessionId))
  return { ok: true }
})
