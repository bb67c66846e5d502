import { defineEventHandler } from 'h3'
import { useDatabase } from '../../../db/use-database'
import { failure } from '../../../http/failure'
import { askPasskey } from '../../../http/passkeys'
import { findStudioId } from '../../../repositories/staff'

/** What a browser proves with a passkey that somebody signs in with. */
export default defineEventHandler(async (event) => {
  const studioId = await findStudioId(await useDatabase())
  if (studioId === null) throw failure(409, 'There is no studio here yet.')
  return askPasskey(event, { kind: 'system', studioId }, null)
})
