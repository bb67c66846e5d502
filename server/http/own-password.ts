import type { H3Event } from 'h3'
import { useDatabase } from '../db/use-database'
import { findAboutPerson } from '../repositories/staff'
import { failure } from './failure'
import { attemptSucceeded, countAttempt } from './guessing'
import { isRight } from './password'
import { signedInAs } from './signed-in'

/** Asks whoever is signed in for their own password, guesses counted. Throws 422 at `field`. @returns who they are */
export async function proveOwnPassword(event: H3Event, password: string, field: string) {
  const { staffId } = signedInAs(event)
  const person = await findAboutPerson(await useDatabase(), staffId)
  if (!person) throw failure(401, 'Please sign in.')
  const tried = { account: `password of ${staffId}`, real: true, knownDevice: null }
  await countAttempt(event, tried)
  if (!(await isRight(person.passwordHash, password))) {
    const message = 'This is not your password.'
    throw failure(422, message, [{ field, message }])
  }
  await attemptSucceeded(event, tried)
  return person
}
