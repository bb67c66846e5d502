import { eq, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import type { Store, Transaction } from '../db/database'
import { isConnectionLost } from '../db/lost-connection'
import { audit, client } from '../db/schema'
import type { Ports } from '../ports'
import type { LiveMessage } from '../ports/bus'
import { forgetErrors } from '../repositories/assessor-errors'
import { CHANGES_ALL, CHANGES_REPEATS, isRecorded, LOOKS, type ChangeKind } from './kinds'

/** Who changes something: a person of the studio, a client by their own link, or the application itself. */
export type Actor =
  | { kind: 'staff'; staffId: string; studioId: string }
  | { kind: 'link'; clientId: string; studioId: string }
  | { kind: 'system'; studioId: string }

/** What happens, and on whom: ids only. */
export interface Change {
  kind: ChangeKind
  clientId?: string | undefined
  checkinId?: string | undefined
  subjectId?: string | undefined
}

/** A change reports its side effects through the unit of work. */
export interface Unit {
  /** Everything was there already: nothing is touched, recorded or published. */
  unchanged: () => void
  /** Tells the screens of the check-in, once it is stored. */
  publish: (message: LiveMessage) => void
  /** Ends these sessions everywhere, open streams included, once it is stored. */
  endSessions: (sessionIds: readonly string[]) => void
  /** Closes the open streams of these sessions, once it is stored: their devices are locked. */
  silence: (sessionIds: readonly string[]) => void
  /** Said by work that finds out only inside what it changes. */
  concerns: (more: Omit<Change, 'kind'>) => void
}

/** Where a change goes: a store, and the ports that are told of it. */
export interface Where {
  store: Pick<Store, 'database' | 'settle'> & Partial<Pick<Store, 'server'>>
  ports: Pick<Ports, 'bus' | 'shelf'>
}

/**
 * The one door for writes. Opens a transaction, does the work in it, touches the client it concerns, writes one row of
 * the record, and after the commit brings it to the disk, tells the screens and forgets what was computed from the facts
 * before. Work that throws leaves nothing behind. What it returns is safe when this resolves.
 */
export async function changeIn<Result>(
  { store, ports }: Where,
  actor: Actor,
  change: Change,
  work: (tx: Transaction, unit: Unit) => Promise<Result>,
): Promise<Result> {
  const { result, about, messages, ended, unchanged } = await attempt(store, actor, change, work)
    .catch((error: unknown) => {
      // The connection was lost before anything could be committed: once more, on another one.
      if (!(error instanceof LostBeforeCommit)) throw error
      return attempt(store, actor, change, work)
    })
    .catch((error: unknown) => {
      throw error instanceof LostBeforeCommit ? error.cause : error
    })
  // What was there already may have been committed a moment ago by another request: it is not safe before the disk says so.
  await store.settle()
  if (unchanged) return result
  if (CHANGES_ALL.has(change.kind)) ports.shelf.clear()
  else if (CHANGES_REPEATS.has(change.kind)) {
    forgetErrors(ports.shelf, actor.studioId)
    ports.shelf.forget('studied', actor.studioId)
  }
  // Every process knows every set: check-ins name them.
  if (change.kind === 'set.made' || change.kind === 'archive.imported') ports.bus.publish('sets', { kind: 'changed' })
  for (const message of messages) if (about.checkinId) ports.bus.publish(`checkin:${about.checkinId}`, message)
  for (const id of ended) ports.bus.publish(`session:${id}`, { kind: 'ended' })
  return result
}

/** The connection was lost while the work was done, so nothing of it was committed. */
class LostBeforeCommit extends Error {}

/** One transaction of a change, with what is to be told once it is stored. */
async function attempt<Result>(
  store: Where['store'],
  actor: Actor,
  change: Change,
  work: (tx: Transaction, unit: Unit) => Promise<Result>,
) {
  const about = { ...change }
  const messages: LiveMessage[] = []
  const ended: string[] = []
  let unchanged = false
  let isDone = false
  const run = async (tx: Transaction): Promise<Result> => {
    // One writer of a studio at a time, as in the embedded database: what the work reads first still holds when it writes.
    if (store.server)
      await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${`studio ${actor.studioId}`}, 0))`)
    const done = await work(tx, {
      unchanged: () => (unchanged = true),
      publish: (message) => messages.push(message),
      endSessions: (ids) => ended.push(...ids),
      silence: (ids) => ended.push(...ids),
      concerns: (more) => Object.assign(about, more),
    })
    if (!unchanged) {
      if (about.clientId && !LOOKS.has(change.kind)) {
        // Lines computed from the facts before are made anew.
        await tx
          .update(client)
          .set({ touchedAt: sql`clock_timestamp()` })
          .where(eq(client.id, about.clientId))
      }
      if (isRecorded(change.kind)) await tx.insert(audit).values(recordOf(actor, about))
    }
    isDone = true
    return done
  }
  const result = await store.database.transaction(run).catch((error: unknown) => {
    throw !isDone && isConnectionLost(error) ? new LostBeforeCommit('lost', { cause: error }) : error
  })
  return { result, about, messages, ended, unchanged }
}

function recordOf(actor: Actor, { kind, clientId, checkinId, subjectId }: Change): typeof audit.$inferInsert {
  return {
    id: uuid(),
    studioId: actor.studioId,
    at: new Date().toISOString(),
    actor: actor.kind,
    staffId: actor.kind === 'staff' ? actor.staffId : null,
    kind,
    clientId: clientId ?? (actor.kind === 'link' ? actor.clientId : null),
    checkinId: checkinId ?? null,
    subjectId: subjectId ?? null,
  }
}
