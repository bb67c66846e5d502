import { and, asc, eq, isNull, sql } from 'drizzle-orm'
import { dayBegins, type Day } from '../../core/calendar'
import type { CalendarDay } from '../../exchange/calendar'
import { nextDate, USUAL_SCHEDULE } from '../../core/schedule'
import type { Queryable } from '../db/database'
import { checkin, client } from '../db/schema'
import { clientsBooked } from './bookings'
import { ofRow } from './of-row'
import { findSchedules } from './schedules'
import { isVisit } from './visits'

/** The entry of a client's due day. */
export const dueId = (clientId: string) => `due-${clientId}`

/**
 * Days on which clients are due, as entries of a calendar (today for who is due already), by the same rule as on the floor
 * and in the list: who has a booking ahead, or is archived, has none.
 * @param staffId those of one coach's own clients; null: of everybody
 */
export async function dueDays(
  db: Queryable,
  { studioId, staffId }: { studioId: string; staffId: string | null },
  today: Day,
  timeZone: string,
): Promise<CalendarDay[]> {
  const people = await db
    .select({
      clientId: client.id,
      clientName: client.name,
      lastDay: sql<Day | null>`(select max(${checkin.day})::text from ${checkin} where ${checkin.clientId} = ${ofRow(client.id)} and ${isVisit})`,
    })
    .from(client)
    .where(
      and(
        eq(client.studioId, studioId),
        isNull(client.archivedAt),
        staffId === null ? undefined : eq(client.coachId, staffId),
      ),
    )
    .orderBy(asc(client.name), asc(client.id))
  const booked = new Set(await clientsBooked(db, { studioId }, dayBegins(today, timeZone)))
  const schedules = await findSchedules(
    db,
    people.map(({ clientId }) => clientId),
  )
  return people.flatMap(({ clientId, clientName, lastDay }) => {
    if (booked.has(clientId)) return []
    const { day } = nextDate(lastDay, schedules.get(clientId) ?? USUAL_SCHEDULE, today)
    return [{ id: dueId(clientId), title: `${clientName}, due`, day: day < today ? today : day }]
  })
}
