import { provedByPasskey } from '../../../../shared/schemas/passkey'
import { useDatabase } from '../../../db/use-database'
import { beginSession } from '../../../http/begin-session'
import { readJson } from '../../../http/body'
import { failure } from '../../../http/failure'
import { attemptSucceeded, countAttempt } from '../../../http/guessing'
import { provedBy } from '../../../http/passkeys'
import { defineRoute } from '../../../http/route'
import { deviceHash } from '../../../http/session-cookie'
import { hashOf } from '../../../http/tokens'
import { isKnownDevice } from '../../../repositories/known-devices'
import { findPasskey } from '../../../repositories/passkeys'
import { findStudioId } from '../../../repositories/staff'

/** Signs in with a passkey: a thing somebody has, opened by finger, face or digits, counts as both factors. */
export default defineRoute({ access: 'open' }, async (event) => {
  const proof = await readJson(event, provedByPasskey)
  const db = await useDatabase()
  const studioId = await findStudioId(db)
  if (studioId === null) throw failure(409, 'There is no studio here yet.')
  // Counted by passkey and by address: a stranger's wrong tries keep nobody else waiting.
  const passkey = await findPasskey(db, proof.id)
  const device = deviceHash(event)
  const known = passkey && device && (await isKnownDevice(db, passkey.staffId, device)) ? device : null
  const tried = { account: `passkey ${hashOf(proof.id)}`, real: passkey !== null, knownDevice: known }
  await countAttempt(event, tried)
  const who = await provedBy(event, { kind: 'system', studioId }, null, proof)
  await attemptSucceeded(event, tried)
  await beginSession(event, who)
  return { ok: true }
})
