import type { LockState } from '../../../shared/schemas/device'
import { useDatabase } from '../../db/use-database'
import { deviceHash } from '../../http/session-cookie'
import { lockedOrSignedIn } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { peopleOfDevice } from '../../repositories/locks'

/** Whether this device is locked, and who can open it. */
export default defineRoute(
  { access: 'recorder', proof: 'none', whenLocked: true },
  async (event): Promise<LockState> => {
    const { lockedAt, ...who } = lockedOrSignedIn(event)
    const hash = deviceHash(event)
    const known = hash ? await peopleOfDevice(await useDatabase(), who, hash) : []
    const own = (id: string) => (id === who.staffId ? 0 : 1)
    const people = known.map(({ id, name, hasPin }) => ({ id, name, hasPin })).sort((a, b) => own(a.id) - own(b.id))
    return { lockedAt, staffId: who.staffId, people }
  },
)
