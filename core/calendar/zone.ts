import { TZDate } from '@date-fns/tz'
import { format, formatISO, startOfDay } from 'date-fns'
import type { Day } from './day'

/** The zone of a studio that has not said where it is. */
export const NO_ZONE = 'UTC'

/** Whether this machine knows a time zone by this IANA name. */
export function isTimeZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name })
    // Offsets such as "+05:00" are taken by some machines: they are no place.
    return /^[A-Za-z]/.test(name)
  } catch {
    return false
  }
}

/**
 * The calendar day it is in a time zone at an instant.
 * @example localDay('2026-11-24T22:00:00Z', 'Pacific/Auckland') // '2026-11-25'
 */
export function localDay(instant: string | number | Date, timeZone: string): Day {
  return formatISO(new TZDate(+new Date(instant), timeZone), { representation: 'date' })
}

/**
 * An instant as the clocks of a time zone show it, by a date-fns pattern.
 * @example sayInZone('2026-11-24T22:05:00Z', 'Asia/Kolkata', 'd MMM HH:mm') // '25 Nov 03:35'
 */
export function sayInZone(instant: string | number | Date, timeZone: string, pattern: string): string {
  return format(new TZDate(+new Date(instant), timeZone), pattern)
}

/**
 * The instant a calendar day begins in a time zone.
 * @returns ISO instant
 * @example dayBegins('2026-11-25', 'Pacific/Auckland') // '2026-11-24T11:00:00.000Z'
 */
export function dayBegins(day: Day, timeZone: string): string {
  const [year = NaN, month = NaN, date = NaN] = day.split('-').map(Number)
  return new Date(+startOfDay(new TZDate(year, month - 1, date, 12, timeZone))).toISOString()
}

/** The latest calendar day it is anywhere on earth at an instant (UTC+14): no later day has come for anybody. */
export function latestDay(instant: string | number | Date): Day {
  return localDay(instant, 'Pacific/Kiritimati')
}
