import { defineEventHandler } from 'h3'
import { confirmInput } from '../../../shared/schemas/account'
import { actorOf } from '../../http/actor'
import { readJson } from '../../http/body'
import { proveOwnPassword } from '../../http/own-password'
import { signedInAs } from '../../http/signed-in'
import { noteConfirmed } from '../../repositories/sessions'
import { change } from '../../write/use-change'

/** Proves anew who somebody is, for what is guarded. */
export default defineEventHandler(async (event) => {
  const who = signedInAs(event)
  const { password } = await readJson(event, confirmInput)
  await proveOwnPassword(event, password, 'password')
  await change(actorOf(event), { kind: 'session.confirmed' }, (tx) => noteConfirmed(tx, who.sessionId))
  return { ok: true }
})
