import { and, asc, desc, eq, gte, inArray, lt, ne, sql } from 'drizzle-orm'
import { addDays, dayBegins, localDay, type Day } from '../../core/calendar'
import type { BookingChange, BookingLine, BookingsInput } from '../../shared/schemas/booking'
import type { Queryable, Transaction } from '../db/database'
import { booking, checkin, client } from '../db/schema'
import { storeOnce } from '../write/same-again'
import { seenBy, type Sees } from './seen-by'
import type { InStudio, SignedIn } from './staff'
import { isVisit } from './visits'

const columns = {
  id: booking.id,
  clientId: booking.clientId,
  clientName: client.name,
  assessorId: booking.assessorId,
  place: booking.place,
  protocolId: booking.protocolId,
  startsAt: booking.startsAt,
  minutes: booking.minutes,
  state: booking.state,
  movedFrom: booking.movedFrom,
  sequence: booking.sequence,
}
type Row = Omit<BookingLine, 'checkin'>

/** Adds what has become of the visits: check-ins of the same client on the same day of the studio. */
async function withCheckins(db: Queryable, rows: readonly Row[], timeZone: string): Promise<BookingLine[]> {
  if (rows.length === 0) return []
  const days = [...new Set(rows.map(({ startsAt }) => localDay(startsAt, timeZone)))]
  const ids = [...new Set(rows.map(({ clientId }) => clientId))]
  const came = await db
    .select({ id: checkin.id, clientId: checkin.clientId, day: checkin.day, finishedAt: checkin.finishedAt })
    .from(checkin)
    .where(and(inArray(checkin.clientId, ids), inArray(checkin.day, days), isVisit))
    .orderBy(asc(checkin.startedAt))
  const byVisit = new Map(came.map((one) => [`${one.clientId} ${one.day}`, one]))
  return rows.map((row) => {
    const found = byVisit.get(`${row.clientId} ${localDay(row.startsAt, timeZone)}`)
    return { ...row, checkin: found ? { id: found.id, finished: found.finishedAt !== null } : null }
  })
}

/** Bookings of some days of the studio, both included, in order of time; cancelled ones are left out. */
export async function listBookings(
  db: Queryable,
  who: SignedIn,
  { from, to }: { from: Day; to: Day },
  timeZone: string,
): Promise<BookingLine[]> {
  const rows = await db
    .select(columns)
    .from(booking)
    .innerJoin(client, eq(client.id, booking.clientId))
    .where(
      and(
        eq(booking.studioId, who.studioId),
        seenBy(who),
        ne(booking.state, 'cancelled'),
        gte(booking.startsAt, dayBegins(from, timeZone)),
        lt(booking.startsAt, dayBegins(addDays(to, 1), timeZone)),
      ),
    )
    .orderBy(asc(booking.startsAt), asc(booking.id))
  return withCheckins(db, rows, timeZone)
}

/** A client's bookings from an instant on, in order of time. */
export async function comingBookings(
  db: Queryable,
  who: InStudio,
  clientId: string,
  from: string,
  timeZone: string,
): Promise<BookingLine[]> {
  const rows = await db
    .select(columns)
    .from(booking)
    .innerJoin(client, eq(client.id, booking.clientId))
    .where(
      and(
        eq(booking.clientId, clientId),
        eq(booking.studioId, who.studioId),
        eq(booking.state, 'booked'),
        gte(booking.startsAt, from),
      ),
    )
    .orderBy(asc(booking.startsAt), asc(booking.id))
  return withCheckins(db, rows, timeZone)
}

/** Clients somebody sees who have a visit coming up from an instant on. */
export async function clientsBooked(db: Queryable, who: InStudio, from: string): Promise<string[]> {
  const rows = await db
    .selectDistinctOn([booking.clientId], { clientId: booking.clientId })
    .from(booking)
    .innerJoin(client, eq(client.id, booking.clientId))
    .where(
      and(eq(booking.studioId, who.studioId), seenBy(who), eq(booking.state, 'booked'), gte(booking.startsAt, from)),
    )
    .orderBy(booking.clientId)
  return rows.map(({ clientId }) => clientId)
}

/** Where a client's newest booking was. */
export async function lastPlace(db: Queryable, clientId: string): Promise<string> {
  const [row] = await db
    .select({ place: booking.place })
    .from(booking)
    .where(and(eq(booking.clientId, clientId), ne(booking.state, 'cancelled')))
    .orderBy(desc(booking.startsAt))
    .limit(1)
  return row?.place ?? ''
}

/** One booking of this studio, or null. */
export async function findBooking(
  db: Queryable,
  who: SignedIn,
  id: string,
  timeZone: string,
): Promise<BookingLine | null> {
  const rows = await db
    .select(columns)
    .from(booking)
    .innerJoin(client, eq(client.id, booking.clientId))
    .where(and(eq(booking.id, id), eq(booking.studioId, who.studioId), seenBy(who)))
  return (await withCheckins(db, rows, timeZone))[0] ?? null
}

/** Stores visits agreed on, all or none, under ids made by the device. Gives how many were new. Throws IdTaken. */
export function addBookings(tx: Transaction, who: SignedIn, { visits, ...common }: BookingsInput): Promise<number> {
  const rows = visits.map((one) => ({ ...one, ...common, studioId: who.studioId, bookedBy: who.staffId }))
  return storeOnce(tx, booking, booking.id, rows, ['clientId', 'studioId'])
}

/** Moves or marks a booking. False when it has been changed since it was seen. */
export async function changeBooking(
  tx: Transaction,
  line: BookingLine,
  { sequence, ...change }: BookingChange,
): Promise<boolean> {
  const moved = change.startsAt !== undefined && Date.parse(change.startsAt) !== Date.parse(line.startsAt)
  const changed = await tx
    .update(booking)
    .set({
      ...change,
      ...(moved ? { movedFrom: line.movedFrom ?? line.startsAt } : {}),
      sequence: sequence + 1,
      changedAt: sql`clock_timestamp()`,
    })
    .where(and(eq(booking.id, line.id), eq(booking.sequence, sequence)))
    .returning({ id: booking.id })
  return changed.length > 0
}

/** What a calendar reads: bookings from a day on, cancelled ones too, so that calendars take them off. */
export async function bookingsForCalendar(
  db: Queryable,
  { studioId, staffId, sees }: { studioId: string; staffId: string | null; sees: Sees },
  from: string,
) {
  return db
    .select({ ...columns, changedAt: booking.changedAt })
    .from(booking)
    .innerJoin(client, eq(client.id, booking.clientId))
    .where(
      and(
        eq(booking.studioId, studioId),
        staffId === null ? undefined : eq(booking.assessorId, staffId),
        seenBy({ sees }),
        gte(booking.startsAt, from),
      ),
    )
    .orderBy(asc(booking.startsAt), asc(booking.id))
}
