import { passwordReset } from '../../shared/schemas/account'
import { useDatabase } from '../db/use-database'
import { readJson } from '../http/body'
import { failure } from '../http/failure'
import { countAttempt } from '../http/guessing'
import { logOf } from '../http/log'
import { hashInTurn, refuseWeak } from '../http/password'
import { hashOf } from '../http/tokens'
import { defineRoute } from '../http/route'
import { findPasswordLink, usePasswordLink } from '../repositories/password-links'
import { forgetDevices } from '../repositories/known-devices'
import { endSessions } from '../repositories/sessions'
import { findAboutPerson, setPassword } from '../repositories/staff'
import { change } from '../write/use-change'

/** Chooses a new password by the link a lead has made. The link works once; every session of the person ends. */
export default defineRoute({ access: 'open' }, async (event) => {
  const { token, password } = await readJson(event, passwordReset)
  const db = await useDatabase()
  const sentence = 'This link does not work any more. Please ask your lead coach for another one.'
  const link = await findPasswordLink(db, hashOf(token))
  if (!link) {
    await countAttempt(event, { account: 'password links', real: false, knownDevice: null })
    throw failure(404, sentence)
  }
  const person = await findAboutPerson(db, link.staffId)
  await refuseWeak(password, person?.about ?? [])
  const passwordHash = await hashInTurn(password)
  const actor = { kind: 'staff', staffId: link.staffId, studioId: link.studioId } as const
  await change(actor, { kind: 'password.reset' }, async (tx, unit) => {
    if (!(await usePasswordLink(tx, link.id))) throw failure(404, sentence)
    await setPassword(tx, link.staffId, passwordHash)
    await forgetDevices(tx, link.staffId)
    unit.endSessions(await endSessions(tx, link.staffId, { but: null }))
  })
  logOf(event).info({ what: 'password reset', staff: link.staffId })
  return { ok: true }
})
