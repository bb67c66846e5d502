import type { H3Event } from 'h3'
import type { BookingBoard, BookingLine } from '../../shared/schemas/booking'
import { useDatabase } from '../db/use-database'
import { findBooking } from '../repositories/bookings'
import { findBoard } from '../repositories/briefs'
import { listStaff } from '../repositories/staff'
import { todayAt, zoneOf } from './days'
import { failure } from './failure'
import { idParam } from './params'
import { signedInAs } from './signed-in'

/** How late a visit may still be booked, ms: a client who is just coming in. */
const JUST_NOW_MS = 15 * 60_000

/** Bookings and absences of some days, both included. */
export async function boardOf(event: H3Event, days: { from: string; to: string }): Promise<BookingBoard> {
  return findBoard(await useDatabase(), signedInAs(event), days, todayAt(event), zoneOf(event))
}

/** The booking this address names. Throws 404 when there is none here. */
export async function bookingAt(event: H3Event): Promise<BookingLine> {
  const sentence = 'There is no such booking.'
  const found = await findBooking(await useDatabase(), signedInAs(event), idParam(event, sentence), zoneOf(event))
  if (!found) throw failure(404, sentence, [{ field: 'id', message: sentence }])
  return found
}

/** Throws 422 at the field for a time that has passed. */
export function refusePast(fields: Readonly<Record<string, string | undefined>>): void {
  const message = 'This time has passed: give one from now on.'
  const passed = Object.entries(fields).filter(([, at]) => at && Date.parse(at) < Date.now() - JUST_NOW_MS)
  if (passed.length > 0)
    throw failure(
      422,
      message,
      passed.map(([field]) => ({ field, message })),
    )
}

/** Throws 422 for somebody who does not work here. */
export async function refuseStranger(event: H3Event, assessorId: string | null | undefined): Promise<void> {
  if (!assessorId) return
  const message = 'This person does not work here.'
  const people = await listStaff(await useDatabase(), signedInAs(event))
  if (!people.some(({ id }) => id === assessorId)) throw failure(422, message, [{ field: 'assessorId', message }])
}
