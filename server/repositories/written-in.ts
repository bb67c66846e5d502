import { and, eq, isNotNull, or } from 'drizzle-orm'
import type { Queryable } from '../db/database'
import { checkin, reading } from '../db/schema'

/** Whether somebody is noted as recorder of a check-in, or took a reading in it. */
export async function hasWrittenIn(db: Queryable, staffId: string, checkinId: string): Promise<boolean> {
  const rows = await db
    .select({ id: checkin.id })
    .from(checkin)
    .leftJoin(reading, and(eq(reading.checkinId, checkin.id), eq(reading.takenBy, staffId)))
    .where(and(eq(checkin.id, checkinId), or(eq(checkin.recorderId, staffId), isNotNull(reading.id))))
    .limit(1)
  return rows.length > 0
}
