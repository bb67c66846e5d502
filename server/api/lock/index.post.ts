import { lockedOrSignedIn } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { lockSession } from '../../repositories/locks'
import { change } from '../../write/use-change'

/** Locks this device: its screens hear nothing more, and nothing answers until somebody opens it. */
export default defineRoute({ access: 'recorder', proof: 'none', whenLocked: true }, async (event) => {
  const { sessionId, staffId, studioId } = lockedOrSignedIn(event)
  await change({ kind: 'staff', staffId, studioId }, { kind: 'device.locked' }, async (tx, unit) => {
    if (await lockSession(tx, sessionId, new Date().toISOString())) unit.silence([sessionId])
    else unit.unchanged()
  })
  return { ok: true }
})
