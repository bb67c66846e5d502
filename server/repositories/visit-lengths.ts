import { and, desc, eq, isNotNull, isNull, sql } from 'drizzle-orm'
import type { Queryable } from '../db/database'
import { checkin, client } from '../db/schema'
import type { InStudio } from './staff'
import { isVisit } from './visits'

/** How many visits of a set are looked at. */
const NEWEST = 60

/** How long the newest visits of a set took here, minutes from start to finish. */
export async function visitLengths(
  db: Queryable,
  { studioId }: InStudio,
  protocolId: string,
  recorder: boolean,
): Promise<number[]> {
  const rows = await db
    .select({ minutes: sql<number>`extract(epoch from ${checkin.finishedAt} - ${checkin.startedAt})::float8 / 60` })
    .from(checkin)
    .innerJoin(client, eq(client.id, checkin.clientId))
    .where(
      and(
        eq(client.studioId, studioId),
        eq(checkin.protocolId, protocolId),
        isNotNull(checkin.finishedAt),
        isVisit,
        recorder ? isNotNull(checkin.recorderId) : isNull(checkin.recorderId),
      ),
    )
    .orderBy(desc(checkin.startedAt))
    .limit(NEWEST)
  return rows.map(({ minutes }) => minutes)
}
