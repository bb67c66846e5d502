import { setTimeout as after } from 'node:timers/promises'
import { minutesToMilliseconds } from 'date-fns'
import { useDatabase } from '../db/use-database'
import { findSession, noteSeen, type FoundSession } from '../repositories/sessions'
import { change } from '../write/use-change'

/** Who was let in by a session, and when. */
const recent = new Map<string, { person: FoundSession; at: number }>()
const RECENT_MS = minutesToMilliseconds(5)
const MOST_RECENT = 2_000
/** A database that answers at all answers in less. */
const PATIENCE_MS = 400

/** The person a session belongs to while it runs; that it was used is noted now and then. */
export async function refreshSession(id: string): Promise<FoundSession | null> {
  const found = await findSession(await useDatabase(), id)
  recent.delete(id)
  if (!found) return null
  recent.set(id, { person: found, at: Date.now() })
  const [oldest] = recent.keys()
  if (recent.size > MOST_RECENT && oldest !== undefined) recent.delete(oldest)
  if (found.stale) {
    const { studioId } = found
    await change({ kind: 'system', studioId }, { kind: 'session.seen' }, (tx) => noteSeen(tx, id))
  }
  return found
}

/**
 * As `refreshSession`, for whoever watches long work or gives it up: while that work keeps the embedded database from
 * answering, somebody let in minutes ago is let in. No session can end meanwhile, because that is stored too.
 */
export async function watchingSession(id: string): Promise<FoundSession | null> {
  const known = recent.get(id)
  const found = refreshSession(id)
  if (!known || Date.now() - known.at > RECENT_MS) return found
  const busy = new AbortController()
  const waited = after(PATIENCE_MS, known.person, { signal: busy.signal })
  // Whichever comes second is heard by nobody.
  found.catch(() => undefined)
  waited.catch(() => undefined)
  return Promise.race([found, waited]).finally(() => busy.abort())
}
