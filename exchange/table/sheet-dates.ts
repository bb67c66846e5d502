import { dayExists } from '../../core/calendar'
import type { DateCell } from './cells'

/** Numbers of the built-in formats that show dates (ECMA-376 part 1, 18.8.30; those with hours alone are none). */
const BUILT_IN = new Set([14, 15, 16, 17, 22, 27, 28, 29, 30, 31, 34, 35, 36, 50, 51, 52, 53, 54, 55, 56, 57, 58])

/** Whether a number format shows a day: letters of day or year outside of quotes and brackets. */
export function isDateFormat(id: number, code: string | undefined): boolean {
  if (BUILT_IN.has(id)) return true
  const bare = code?.replace(/"[^"]*"|\\.|\[[^\]]*\]/g, '') ?? ''
  return /[yd]/i.test(bare) && !/general/i.test(bare)
}

const DAY_MS = 86_400_000

/**
 * A spreadsheet's number as a day and minute; null where it is none of 1900 to 2200.
 * Days count from 1899-12-30, so that 1900's false leap day is jumped over (ECMA-376 part 1, 18.17.4.1).
 * @example cellDate(45987.75) // { day: '2025-11-26', minute: 1080 }
 */
export function cellDate(value: number | string, since1904 = false): DateCell | null {
  if (typeof value === 'string') {
    const [, day = '', hours, minutes] = /^(\d{4}-\d\d-\d\d)(?:T(\d\d):(\d\d))?/.exec(value) ?? []
    return dayExists(day) ? { day, minute: hours ? Number(hours) * 60 + Number(minutes) : null } : null
  }
  const days = value + (since1904 ? 1462 : 0)
  if (!(days >= 61 && days < 110_000)) return null
  const whole = Math.floor(days)
  const minute = Math.round((days - whole) * 1440)
  const day = new Date(Date.UTC(1899, 11, 30) + whole * DAY_MS).toISOString().slice(0, 10)
  return { day, minute: minute > 0 && minute < 1440 ? minute : null }
}
