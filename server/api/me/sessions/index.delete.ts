import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { endSessions, listSessions } from '../../../repositories/sessions'
import { change } from '../../../write/use-change'

/** Ends every session of this person but the one asking; answers with those that still run. */
export default defineRoute({ access: 'recorder', proof: 'none' }, async (event) => {
  const who = signedInAs(event)
  await change(actorOf(event), { kind: 'sessions.ended', subjectId: who.staffId }, async (tx, unit) => {
    unit.endSessions(await endSessions(tx, who.staffId, { but: who.sessionId }))
  })
  return listSessions(await useDatabase(), who, who.role === 'lead')
})
