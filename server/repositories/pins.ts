import { and, desc, eq } from 'drizzle-orm'
import type { PinInput, PinnedStart } from '../../shared/schemas/following'
import type { Queryable, Transaction } from '../db/database'
import { checkin, pinnedStart, staff } from '../db/schema'
import { storeOnce } from '../write/same-again'
import type { SignedIn } from './staff'
import { isVisit } from './visits'

/** Every start pinned for a client, the newest first: that one counts. */
export async function listPins(db: Queryable, clientId: string): Promise<PinnedStart[]> {
  return db
    .select({ checkinId: pinnedStart.checkinId, at: pinnedStart.at, by: staff.name })
    .from(pinnedStart)
    .innerJoin(staff, eq(staff.id, pinnedStart.pinnedBy))
    .where(eq(pinnedStart.clientId, clientId))
    .orderBy(desc(pinnedStart.at), desc(pinnedStart.id))
}

/** True where a check-in of this client stands that counts. */
export async function isCheckinOf(db: Queryable, clientId: string, checkinId: string): Promise<boolean> {
  const rows = await db
    .select({ id: checkin.id })
    .from(checkin)
    .where(and(eq(checkin.id, checkinId), eq(checkin.clientId, clientId), isVisit))
  return rows.length > 0
}

/** Pins a start under an id made by the device; sending it twice pins one. Throws IdTaken. */
export function addPin(tx: Transaction, who: SignedIn, clientId: string, { id, checkinId }: PinInput): Promise<number> {
  const row = { id, clientId, checkinId, pinnedBy: who.staffId }
  return storeOnce(tx, pinnedStart, pinnedStart.id, [row], ['clientId', 'checkinId'])
}
