import { confirmInput } from '../../../../shared/schemas/account'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { proveOwnPassword } from '../../../http/own-password'
import { provedBy } from '../../../http/passkeys'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { noteConfirmed } from '../../../repositories/sessions'
import { change } from '../../../write/use-change'

/** Proves anew who somebody is, for what is guarded: by password or by passkey. */
export default defineRoute({ access: 'recorder', proof: 'none' }, async (event) => {
  const who = signedInAs(event)
  const proof = await readJson(event, confirmInput)
  if ('passkey' in proof) await provedBy(event, actorOf(event), who.staffId, proof.passkey)
  else await proveOwnPassword(event, proof.password, 'password')
  await change(actorOf(event), { kind: 'session.confirmed' }, (tx) => noteConfirmed(tx, who.sessionId))
  return { ok: true }
})
