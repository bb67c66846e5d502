import { useDatabase } from '../../../../db/use-database'
import { actorOf } from '../../../../http/actor'
import { failure } from '../../../../http/failure'
import { idParam } from '../../../../http/params'
import { signedInAs } from '../../../../http/signed-in'
import { defineRoute } from '../../../../http/route'
import { endSessions, listSessions } from '../../../../repositories/sessions'
import { change } from '../../../../write/use-change'

/** Ends one session: one's own, or for a lead anybody's; answers with those that still run. */
export default defineRoute({ access: 'recorder', proof: 'none' }, async (event) => {
  const who = signedInAs(event)
  const sentence = 'There is no such session.'
  const id = idParam(event, sentence)
  const db = await useDatabase()
  const found = (await listSessions(db, who, who.role === 'lead')).find((session) => session.id === id)
  if (!found) throw failure(404, sentence)
  await change(actorOf(event), { kind: 'sessions.ended', subjectId: found.staffId }, async (tx, unit) => {
    unit.endSessions(await endSessions(tx, found.staffId, { only: id }))
  })
  return listSessions(db, who, who.role === 'lead')
})
