import { defineEventHandler } from 'h3'
import { signInInput } from '../../shared/schemas/account'
import { useDatabase } from '../db/use-database'
import { forgetFailures, minutesToWait, noteFailure } from '../http/attempts'
import { readJson } from '../http/body'
import { failure } from '../http/failure'
import { signIn } from '../http/sign-in'
import { findCredentials } from '../repositories/staff'

let decoy: Promise<string> | undefined

/** A hash to compare with when the account does not exist, so that both answers take the same time. */
function decoyHash(): Promise<string> {
  return (decoy ??= hashPassword(crypto.randomUUID()))
}

export default defineEventHandler(async (event) => {
  const { email, password } = await readJson(event, signInInput)
  const wait = minutesToWait(email)
  if (wait > 0) throw failure(429, `Too many wrong passwords for this account. Please wait ${wait} minutes.`)
  const found = await findCredentials(await useDatabase(), email)
  const right = await verifyPassword(found?.passwordHash ?? (await decoyHash()), password)
  if (!found || !right) {
    noteFailure(email)
    throw failure(401, 'This e-mail address and password do not belong together.', [
      { field: 'password', message: 'This e-mail address and password do not belong together.' },
    ])
  }
  forgetFailures(email)
  await signIn(event, found.staffId)
  return { ok: true }
})
