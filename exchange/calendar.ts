import ical, { ICalCalendarMethod, ICalEventStatus, ICalEventTransparency } from 'ical-generator'
import { addDays, addMinutes } from 'date-fns'

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

/** A day on which somebody is due: an entry of the whole day, which does not make anybody busy. */
export interface CalendarDay {
  id: string
  title: string
  /** Such as 2026-11-29. */
  day: string
}

/**
 * Visits and due days as an iCalendar file (RFC 5545). Times are instants in UTC: calendars show them on their own clocks, and a day on
 * which clocks change moves nothing.
 * @param host the studio's own name on the net, for ids no other calendar has
 */
export function calendarOf(
  name: string,
  visits: readonly CalendarVisit[],
  host: string,
  days: readonly CalendarDay[] = [],
): string {
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
  for (const { id, title, day } of days)
    calendar.createEvent({
      id: `${id}@${host}`,
      summary: title,
      start: new Date(`${day}T00:00:00Z`),
      end: addDays(new Date(`${day}T00:00:00Z`), 1),
      allDay: true,
      transparency: ICalEventTransparency.TRANSPARENT,
    })
  return calendar.toString()
}
