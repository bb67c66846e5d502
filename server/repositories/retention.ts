import { and, asc, eq, isNull, sql } from 'drizzle-orm'
import { subMonths } from 'date-fns'
import type { RetentionDue, RetentionRules } from '../../shared/schemas/data'
import { KEEP_ALL } from '../../shared/schemas/data'
import type { Queryable, Transaction } from '../db/database'
import { checkin, client, photo, studio } from '../db/schema'
import type { InStudio } from './staff'

/** How long a studio keeps what it has. */
export async function findRetention(db: Queryable, { studioId }: InStudio): Promise<RetentionRules> {
  const [row] = await db.select({ retention: studio.retention }).from(studio).where(eq(studio.id, studioId))
  return row?.retention ?? KEEP_ALL
}

export async function setRetention(tx: Transaction, { studioId }: InStudio, retention: RetentionRules): Promise<void> {
  await tx.update(studio).set({ retention }).where(eq(studio.id, studioId))
}

/** The last day anything of a client was measured, weighed, handed in or booked; else the day they were added. */
const lastOn = sql<string>`greatest(
  (select max(day) from checkin where checkin.client_id = ${client.id}),
  (select max(day) from weigh_in where weigh_in.client_id = ${client.id}),
  (select max(day) from hand_in where hand_in.client_id = ${client.id}),
  (select max(starts_at)::date from booking where booking.client_id = ${client.id}),
  ${client.createdAt}::date)`

const before = (now: Date, months: number) => subMonths(now, months).toISOString()

function oldPhotos({ studioId }: InStudio, now: Date, months: number) {
  return and(
    isNull(photo.removedAt),
    sql`${photo.takenAt} < ${before(now, months)}::timestamptz`,
    sql`${photo.checkinId} in (select ${checkin.id} from ${checkin} join ${client} on ${client.id} = ${checkin.clientId} where ${client.studioId} = ${studioId})`,
  )
}

/** What has fallen due by the rules: to be shown before anything happens. */
export async function retentionDue(
  db: Queryable,
  who: InStudio,
  rules: RetentionRules,
  now = new Date(),
): Promise<RetentionDue> {
  const { clientMonths, photoMonths } = rules
  const clients =
    clientMonths === null
      ? []
      : await db
          .select({ id: client.id, name: client.name, lastOn: sql<string>`${lastOn}::text` })
          .from(client)
          .where(
            and(eq(client.studioId, who.studioId), sql`${lastOn} < ${before(now, clientMonths).slice(0, 10)}::date`),
          )
          .orderBy(asc(sql`lower(${client.name})`))
          .limit(500)
  const photos =
    photoMonths === null
      ? []
      : await db
          .select({ count: sql<number>`count(*)::int` })
          .from(photo)
          .where(oldPhotos(who, now, photoMonths))
  return { clients, photos: photos[0]?.count ?? 0 }
}

/** Marks photographs that have fallen due as removed. @returns their ids: their bytes are to go */
export async function removeDuePhotos(
  tx: Transaction,
  who: InStudio,
  months: number,
  now = new Date(),
): Promise<string[]> {
  const gone = await tx
    .update(photo)
    .set({ removedAt: now.toISOString() })
    .where(oldPhotos(who, now, months))
    .returning({ id: photo.id })
  return gone.map(({ id }) => id)
}
