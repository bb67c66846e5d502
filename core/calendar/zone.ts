import { TZDate } from '@date-fns/tz'
import { format, formatISO, startOfDay } from 'date-fns'
import type { Day } from './day'

/** The zone of a studio that has not said where it is. */
export const NO_ZONE = 'UTC'

/** Clocks are put back by half an hour or one. */
const HALF_HOUR_MS = 30 * 60_000

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

/** One formatter a zone: making one takes longer than a hundred answers. */
const clocks = new Map<string, Intl.DateTimeFormat>()

/**
 * Day and minute of the day an instant has by the clocks of a time zone: as `sayInZone`, for hundreds at once.
 * @example clockIn('2026-11-24T22:05:00Z', 'Asia/Kolkata') // { day: '2026-11-25', minute: 215 }
 */
export function clockIn(instant: string | number | Date, timeZone: string): { day: Day; minute: number } {
  let clock = clocks.get(timeZone)
  if (!clock) {
    clock = new Intl.DateTimeFormat('en-CA', {
      timeZone,
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      hour: '2-digit',
      minute: '2-digit',
      hourCycle: 'h23',
    })
    clocks.set(timeZone, clock)
  }
  const shown = clock.format(new Date(instant))
  return { day: shown.slice(0, 10), minute: 60 * Number(shown.slice(12, 14)) + Number(shown.slice(15, 17)) }
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

/**
 * The instant the clocks of a time zone show a minute of a day. A time the clocks leave out comes an hour later; of one
 * they show twice the first counts.
 * @param minute minutes after midnight, as the clock shows them
 * @returns ISO instant
 * @example instantAt('2026-03-29', 17 * 60, 'Europe/Berlin') // '2026-03-29T15:00:00.000Z'
 */
export function instantAt(day: Day, minute: number, timeZone: string): string {
  const [year = NaN, month = NaN, date = NaN] = day.split('-').map(Number)
  const shown = +new TZDate(year, month - 1, date, Math.floor(minute / 60), minute % 60, timeZone)
  const clock = (instant: number) => sayInZone(instant, timeZone, 'yyyy-MM-dd HH:mm')
  // Which of two the library takes differs by zone.
  const before = [HALF_HOUR_MS, 2 * HALF_HOUR_MS].map((ms) => shown - ms).find((one) => clock(one) === clock(shown))
  return new Date(before ?? shown).toISOString()
}

/** The latest calendar day it is anywhere on earth at an instant (UTC+14): no later day has come for anybody. */
export function latestDay(instant: string | number | Date): Day {
  return localDay(instant, 'Pacific/Kiritimati')
}
