import { type H3Event } from 'h3'
import { signInInput } from '../../shared/schemas/account'
import { useDatabase } from '../db/use-database'
import { beginSession } from '../http/begin-session'
import { readJson } from '../http/body'
import { failure } from '../http/failure'
import { attemptSucceeded, countAttempt } from '../http/guessing'
import { logOf } from '../http/log'
import { hashInTurn, isRight } from '../http/password'
import { takeCode } from '../http/second-factor'
import { deviceHash } from '../http/session-cookie'
import { defineRoute } from '../http/route'
import { hasOnlyPasskey, secondFactorState } from '../repositories/second-factors'
import { isKnownDevice } from '../repositories/known-devices'
import { findCredentials, setPassword } from '../repositories/staff'
import type { Actor } from '../write/change'
import { change } from '../write/use-change'

type Person = Extract<Actor, { kind: 'staff' }>

/** Lets nobody on without the second proof. Throws 401 at the field. */
async function askSecond(event: H3Event, actor: Person, code: string): Promise<void> {
  const refuse = (message: string) => failure(401, message, [{ field: 'code', message }])
  if (code === '') throw refuse('Please give the code your phone shows, or one of those on paper.')
  const isPaper = !/^[\d\s]+$/.test(code)
  const right = await change(actor, { kind: isPaper ? 'factor.used' : 'factor.step' }, async (tx, unit) => {
    const taken = await takeCode(tx, actor.staffId, code)
    if (!taken) unit.unchanged()
    return taken
  })
  if (right) return
  logOf(event).warn({ what: 'second proof refused', staff: actor.staffId })
  throw refuse('This code is not right, or was used already. Please take the next one your phone shows.')
}

export default defineRoute({ access: 'open' }, async (event) => {
  const { email, password, code } = await readJson(event, signInInput)
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
  const actor = { kind: 'staff', staffId: found.staffId, studioId: found.studioId } as const
  // Counted until the second proof is right too: digits are guessed sooner than passwords.
  if ((await secondFactorState(db, found.staffId)).since !== null) await askSecond(event, actor, code ?? '')
  else if (await hasOnlyPasskey(db, found)) {
    const message = 'Your studio asks for more than a password: please sign in with your passkey.'
    throw failure(401, message, [{ field: 'password', message }])
  }
  await attemptSucceeded(event, tried)
  if (passwordNeedsReHash(found.passwordHash)) {
    const passwordHash = await hashInTurn(password)
    await change(actor, { kind: 'password.rehashed' }, (tx) => setPassword(tx, found.staffId, passwordHash))
  }
  await beginSession(event, found)
  return { ok: true }
})
