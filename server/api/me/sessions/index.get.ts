import { useDatabase } from '../../../db/use-database'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { listSessions } from '../../../repositories/sessions'

/** Where this person is signed in; for a lead, where everybody of the studio is. */
export default defineRoute({ access: 'recorder', proof: 'none' }, async (event) => {
  const who = signedInAs(event)
  return listSessions(await useDatabase(), who, who.role === 'lead')
})
