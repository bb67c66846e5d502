import ical, { ICalCalendarMethod, ICalEventStatus } from 'ical-generator'
import { addMinutes } from 'date-fns'

/** A visit as a calendar shows it: when, where, and a title without a word about bodies or health. */
export interface CalendarVisit {
  id: string
  title: string
  place: string
  /** ISO instant. */
  startsAt: string
  minutes: number
  cancelled: boolean
  sequence: number
  /** ISO instant of its last change. */
  changedAt: string
  /** Minutes before it the calendar rings; absent: not at all. */
  alarmMinutes?: number
}

/**
 * Visits as an iCalendar file (RFC 5545). Times are instants in UTC: calendars show them on their own clocks, and a day on
 * which clocks change moves nothing.
 * @param host the studio's own name on the net, for ids no other calendar has
 */
export function calendarOf(name: string, visits: readonly CalendarVisit[], host: string): string {
  const calendar = ical({
    name,
    prodId: { company: 'oak-pinch', product: 'visits', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
    ttl: 15 * 60,
  })
  for (const one of visits) {
    const event = calendar.createEvent({
      id: `${one.id}@${host}`,
      summary: one.title,
      start: new Date(one.startsAt),
      end: addMinutes(new Date(one.startsAt), one.minutes),
      stamp: new Date(one.changedAt),
      lastModified: new Date(one.changedAt),
      sequence: one.sequence,
      status: one.cancelled ? ICalEventStatus.CANCELLED : ICalEventStatus.CONFIRMED,
      ...(one.place ? { location: one.place } : {}),
    })
    if (one.alarmMinutes !== undefined && !one.cancelled)
      event.createAlarm({ type: 'display' as never, trigger: one.alarmMinutes * 60, description: one.title })
  }
  return calendar.toString()
}
