import { provedByPasskey } from '../../../../shared/schemas/passkey'
import { useDatabase } from '../../../db/use-database'
import { beginSession } from '../../../http/begin-session'
import { readJson } from '../../../http/body'
import { failure } from '../../../http/failure'
import { attemptSucceeded, countAttempt } from '../../../http/guessing'
import { provedBy } from '../../../http/passkeys'
import { defineRoute } from '../../../http/route'
import { findStudioId } from '../../../repositories/staff'

/** Signs in with a passkey: something one has, opened by finger, face or digits, is both proofs at once. */
export default defineRoute({ access: 'open' }, async (event) => {
  const proof = await readJson(event, provedByPasskey)
  const studioId = await findStudioId(await useDatabase())
  if (studioId === null) throw failure(409, 'There is no studio here yet.')
  const tried = { account: 'passkeys', real: false, knownDevice: null }
  await countAttempt(event, tried)
  const who = await provedBy(event, { kind: 'system', studioId }, null, proof)
  await attemptSucceeded(event, tried)
  await beginSession(event, who)
  return { ok: true }
})
