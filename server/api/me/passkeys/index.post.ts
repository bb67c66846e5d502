import { setResponseStatus } from 'h3'
import { v7 as uuid } from 'uuid'
import { passkeyInput } from '../../../../shared/schemas/passkey'
import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { failure } from '../../../http/failure'
import { newPasskey } from '../../../http/passkeys'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { addPasskey, listPasskeys } from '../../../repositories/passkeys'
import { change } from '../../../write/use-change'

/** Keeps a passkey one's browser has made. */
export default defineRoute({ access: 'recorder', proof: 'fresh', beforeSecond: true }, async (event) => {
  const { staffId } = signedInAs(event)
  const { name, made } = await readJson(event, passkeyInput)
  const kept = await newPasskey(event, actorOf(event), staffId, made)
  await change(actorOf(event), { kind: 'passkey.added' }, async (tx) => {
    const row = { id: uuid(), staffId, name, addedAt: new Date().toISOString(), ...kept }
    if (!(await addPasskey(tx, row))) throw failure(409, 'This passkey is on an account already.')
  })
  setResponseStatus(event, 201)
  return listPasskeys(await useDatabase(), staffId)
})
