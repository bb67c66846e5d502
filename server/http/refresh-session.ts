import { useDatabase } from '../db/use-database'
import { findSession, noteSeen } from '../repositories/sessions'
import type { SignedIn } from '../repositories/staff'
import { change } from '../write/use-change'

/** The person a session belongs to while it runs; that it was used is noted once an hour. */
export async function refreshSession(id: string): Promise<SignedIn | null> {
  const found = await findSession(await useDatabase(), id)
  if (!found) return null
  const { stale, ...person } = found
  if (stale) {
    const { studioId } = person
    await change({ kind: 'system', studioId }, { kind: 'session.seen' }, (tx) => noteSeen(tx, id))
  }
  return person
}
