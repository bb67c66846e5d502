import type { H3Event } from 'h3'
import { localDay, type Day } from '../../core/calendar'
import { failure } from './failure'
import { signedInAs } from './signed-in'

/** The zone the days of this request's studio are counted in. */
export function zoneOf(event: H3Event): string {
  return signedInAs(event).timeZone
}

/** Today where the studio is. */
export function todayAt(event: H3Event): Day {
  return localDay(Date.now(), zoneOf(event))
}

/** Throws 422 at the field for a day that has not come yet where the studio is. */
export function refuseFuture(event: H3Event, days: Readonly<Record<string, Day | null | undefined>>): void {
  const today = todayAt(event)
  const message = 'This day is still to come where the studio is.'
  const fields = Object.entries(days).flatMap(([field, day]) => (day && day > today ? [{ field, message }] : []))
  if (fields.length > 0) throw failure(422, message, fields)
}
