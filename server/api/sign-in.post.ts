import { defineEventHandler } from 'h3'
import { signInInput } from '../../shared/schemas/account'
import { useDatabase } from '../db/use-database'
import { readJson } from '../http/body'
import { failure } from '../http/failure'
import { attemptSucceeded, countAttempt } from '../http/guessing'
import { logOf } from '../http/log'
import { hashInTurn, isRight } from '../http/password'
import { deviceHash, openSession, sealSession } from '../http/session-cookie'
import { isKnownDevice } from '../repositories/sessions'
import { findCredentials, setPassword } from '../repositories/staff'
import { change } from '../write/use-change'

export default defineEventHandler(async (event) => {
  const { email, password } = await readJson(event, signInInput)
  const db = await useDatabase()
  const found = await findCredentials(db, email)
  const device = deviceHash(event)
  const known = found && device && (await isKnownDevice(db, found.staffId, device)) ? device : null
  const tried = { account: email, real: found !== null, knownDevice: known }
  await countAttempt(event, tried)
  const right = await isRight(found?.passwordHash ?? null, password)
  if (!found || !right) {
    logOf(event).warn({ what: 'sign-in refused', staff: found?.staffId })
    throw failure(401, 'This e-mail address and password do not belong together.', [
      { field: 'password', message: 'This e-mail address and password do not belong together.' },
    ])
  }
  await attemptSucceeded(event, tried)
  const actor = { kind: 'staff', staffId: found.staffId, studioId: found.studioId } as const
  if (passwordNeedsReHash(found.passwordHash)) {
    const passwordHash = await hashInTurn(password)
    await change(actor, { kind: 'password.rehashed' }, (tx) => setPassword(tx, found.staffId, passwordHash))
  }
  const fresh = await change(actor, { kind: 'session.started' }, (tx) => openSession(event, tx, found.staffId))
  logOf(event).info({ what: 'signed in', staff: found.staffId })
  await sealSession(event, fresh)
  return { ok: true }
})
