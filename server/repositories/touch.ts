import { eq, sql } from 'drizzle-orm'
import type { Queryable } from '../db/database'
import { checkin, client } from '../db/schema'

const now = sql`clock_timestamp()`

/** Notes that a fact about this client has changed: lines computed from the facts before are made anew. */
export async function touchClient(db: Queryable, clientId: string): Promise<void> {
  await db.update(client).set({ touchedAt: now }).where(eq(client.id, clientId))
}

/** The same, by one of the client's check-ins. */
export async function touchByCheckin(db: Queryable, checkinId: string): Promise<void> {
  const owner = sql`(select ${checkin.clientId} from ${checkin} where ${checkin.id} = ${checkinId})`
  await db
    .update(client)
    .set({ touchedAt: now })
    .where(sql`${client.id} = ${owner}`)
}
