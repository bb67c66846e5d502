import { and, asc, count, desc, eq, gte, isNotNull, isNull, max, sql } from 'drizzle-orm'
import { addDays, type Day } from '../../core/calendar'
import { CADENCE_DAYS, isDue, nextDue } from '../../core/schedule'
import type { Floor } from '../../shared/schemas/checkin'
import type { Queryable } from '../db/database'
import { checkin, client, reading } from '../db/schema'
import type { SignedIn } from './staff'

const floorLine = {
  clientId: client.id,
  clientName: client.name,
  checkinId: checkin.id,
  at: checkin.startedAt,
  day: checkin.day,
  readings: count(reading.id),
}

function floorLines(db: Queryable) {
  return db
    .select(floorLine)
    .from(checkin)
    .innerJoin(client, eq(client.id, checkin.clientId))
    .leftJoin(reading, eq(reading.checkinId, checkin.id))
    .groupBy(client.id, checkin.id)
    .orderBy(desc(checkin.startedAt))
    .$dynamic()
}

/** How far ahead the floor looks. */
const SOON_DAYS = 14
/** Most people the floor names as due. */
const MOST_DUE = 30

/** What the Floor shows on a day of the studio. */
export async function findFloor(db: Queryable, who: SignedIn, today: Day): Promise<Floor> {
  const here = eq(client.studioId, who.studioId)
  const open = await floorLines(db).where(and(here, isNull(checkin.finishedAt)))
  const finished = await floorLines(db)
    .where(
      and(
        here,
        isNotNull(checkin.finishedAt),
        isNull(checkin.voidedAt),
        gte(checkin.day, addDays(today, -CADENCE_DAYS)),
      ),
    )
    .limit(8)
  const lastDay = max(checkin.day)
  const people = await db
    .select({ clientId: client.id, clientName: client.name, lastDay })
    .from(client)
    .leftJoin(checkin, and(eq(checkin.clientId, client.id), isNull(checkin.voidedAt)))
    .where(and(here, isNull(client.archivedAt)))
    .groupBy(client.id)
    .orderBy(sql`${lastDay} asc nulls last`, asc(client.name))
  const soon = people.flatMap(({ clientId, clientName, lastDay: last }) => {
    const dueOn = last === null ? null : nextDue(last)
    return dueOn && dueOn > today && dueOn <= addDays(today, SOON_DAYS) ? [{ clientId, clientName, dueOn }] : []
  })
  return {
    open,
    finished,
    due: people.filter((one) => isDue(one.lastDay, today)).slice(0, MOST_DUE),
    soon: soon.slice(0, MOST_DUE),
  }
}
