import { refreshSession } from '../http/refresh-session'
import { defineRoute } from '../http/route'
import { endSessions } from '../repositories/sessions'
import { change } from '../write/use-change'

/** Ends the session of this browser, wherever else it is open. Answers the same when there is none any more. */
export default defineRoute({ access: 'open' }, async (event) => {
  const { user } = await getUserSession(event)
  const who = user?.sessionId ? await refreshSession(user.sessionId) : null
  if (who) {
    const { staffId, studioId, sessionId } = who
    await change({ kind: 'staff', staffId, studioId }, { kind: 'session.ended' }, async (tx, unit) => {
      unit.endSessions(await endSessions(tx, staffId, { only: sessionId }))
    })
  }
  await clearUserSession(event)
  return { ok: true }
})
