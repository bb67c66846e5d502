import { type H3Event } from 'h3'
import { openLockInput } from '../../../shared/schemas/device'
import { useDatabase } from '../../db/use-database'
import { readJson } from '../../http/body'
import { failure } from '../../http/failure'
import { attemptSucceeded, countAttempt } from '../../http/guessing'
import { logOf } from '../../http/log'
import { checkPin, pinSecret } from '../../http/pin'
import { deviceHash, sealSession, sessionByPin } from '../../http/session-cookie'
import { lockedOrSignedIn } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { countPin, findPin, openSessionAgain, peopleOfDevice, pinWorks, setPin } from '../../repositories/locks'
import { endSessions } from '../../repositories/sessions'
import type { SignedIn } from '../../repositories/staff'
import { change } from '../../write/use-change'

const wrong = (message: string) => failure(422, message, [{ field: 'pin', message }])

/** Throws 422 at the field unless the digits are theirs; five wrong in a row end it. */
async function provePin(event: H3Event, studioId: string, staffId: string, digits: string): Promise<void> {
  const tried = { account: `pin of ${staffId}`, real: true, knownDevice: deviceHash(event) }
  await countAttempt(event, tried)
  const secret = await findPin(await useDatabase(), staffId)
  const actor = { kind: 'staff', staffId, studioId } as const
  const left = secret === null ? null : await change(actor, { kind: 'pin.tried' }, (tx) => countPin(tx, staffId))
  if (secret === null || left === null)
    throw wrong('There is no PIN, or it was wrong too often. Please sign in with your password.')
  const { right, isOld } = await checkPin(staffId, secret, digits)
  if (right) {
    if (isOld) {
      const anew = await pinSecret(staffId, digits)
      await change(actor, { kind: 'pin.tried' }, (tx) => setPin(tx, staffId, anew))
    }
    return attemptSucceeded(event, tried)
  }
  logOf(event).warn({ what: 'PIN refused', staff: staffId, left })
  throw wrong(
    left === 0
      ? 'This is not your PIN, and it was the fifth time. Please sign in with your password.'
      : `This is not your PIN. ${left === 1 ? 'One more try' : `${left} more tries`}, then the password is asked for.`,
  )
}

/** Whether somebody else takes a device over: they have signed in on it themselves, not too long ago. */
async function provedHere(event: H3Event, who: SignedIn, staffId: string): Promise<string> {
  const hash = deviceHash(event)
  const known = hash ? await peopleOfDevice(await useDatabase(), who, hash) : []
  const found = known.find(({ id }) => id === staffId)
  if (!found) throw wrong('Please sign in on this device with your password first; then your PIN opens it.')
  return found.provedAt
}

/** Opens a locked device with a PIN: for whoever locked it as it was, for somebody else with a session of their own. */
export default defineRoute({ access: 'recorder', proof: 'none', whenLocked: true }, async (event) => {
  const { lockedAt: _, ...who } = lockedOrSignedIn(event)
  const { staffId, pin } = await readJson(event, openLockInput)
  const own = staffId === who.staffId
  const provedAt = own ? null : await provedHere(event, who, staffId)
  await provePin(event, who.studioId, staffId, pin)
  const actor = { kind: 'staff', staffId, studioId: who.studioId } as const
  if (provedAt === null) {
    await change(actor, { kind: 'device.opened' }, async (tx) => {
      await pinWorks(tx, staffId)
      await openSessionAgain(tx, who.sessionId)
    })
    return { staffId }
  }
  const fresh = await change(actor, { kind: 'session.by-pin' }, async (tx, unit) => {
    await pinWorks(tx, staffId)
    unit.endSessions(await endSessions(tx, who.staffId, { only: who.sessionId }))
    return sessionByPin(event, tx, staffId, provedAt)
  })
  await sealSession(event, fresh)
  return { staffId }
})
