import { and, desc, inArray, isNotNull } from 'drizzle-orm'
import { ageInYears, type Day } from '../../core/calendar'
import { ADULT_YEARS } from '../../core/cautions'
import { isNeutral } from '../../shared/neutral'
import type { BookingBoard, VisitBrief } from '../../shared/schemas/booking'
import type { Queryable } from '../db/database'
import { checkin } from '../db/schema'
import { listAbsences } from './absences'
import { listBookings } from './bookings'
import { verdictsOf } from './client-lines'
import { findClients } from './clients'
import type { SignedIn } from './staff'
import { isVisit } from './visits'

/** What a coach walks up to these clients with: cautions, the visit before, what became of them. */
async function briefsOf(db: Queryable, who: SignedIn, ids: readonly string[], today: Day): Promise<VisitBrief[]> {
  if (ids.length === 0) return []
  const people = await findClients(db, who, ids)
  const lasts = await db
    .selectDistinctOn([checkin.clientId], {
      clientId: checkin.clientId,
      day: checkin.day,
      protocolId: checkin.protocolId,
      conditions: checkin.conditions,
    })
    .from(checkin)
    .where(and(inArray(checkin.clientId, [...ids]), isNotNull(checkin.finishedAt), isVisit))
    .orderBy(checkin.clientId, desc(checkin.startedAt))
  const verdicts = await verdictsOf(db, who, ids)
  return people.map((person): VisitBrief => {
    const last = lasts.find(({ clientId }) => clientId === person.id)
    const verdict = verdicts.get(person.id)
    return {
      clientId: person.id,
      flags: person.flags,
      minor: ageInYears(person.birthDate, today) < ADULT_YEARS,
      neutral: isNeutral(person, today),
      last: last ? { day: last.day, protocolId: last.protocolId, conditions: last.conditions } : null,
      change: verdict?.change ?? null,
      figure: verdict?.figure ?? null,
    }
  })
}

/** Bookings of some days, both included, with who is away and what to know of who is booked. */
export async function findBoard(
  db: Queryable,
  who: SignedIn,
  days: { from: Day; to: Day },
  today: Day,
  timeZone: string,
): Promise<BookingBoard> {
  const bookings = await listBookings(db, who, days, timeZone)
  return {
    bookings,
    absences: await listAbsences(db, who, days),
    briefs: await briefsOf(db, who, [...new Set(bookings.map(({ clientId }) => clientId))], today),
  }
}
