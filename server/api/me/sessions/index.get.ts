import { defineEventHandler } from 'h3'
import { useDatabase } from '../../../db/use-database'
import { signedInAs } from '../../../http/signed-in'
import { listSessions } from '../../../repositories/sessions'

/** Where this person is signed in; for a lead, where everybody of the studio is. */
export default defineEventHandler(async (event) => {
  const who = signedInAs(event)
  return listSessions(await useDatabase(), who, who.role === 'lead')
})
