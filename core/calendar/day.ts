import { addDays as plusDays, formatISO, getISODay, parseISO } from 'date-fns'

const DAY_MS = 24 * 60 * 60 * 1000

/** Days that were asked for: histories ask for the same ones again and again. */
const numbers = new Map<string, number>()
const MOST_NUMBERS = 20_000

/** A calendar day, YYYY-MM-DD, without a time or a zone. */
export type Day = string

/**
 * Days since 1970-01-01 of a calendar day.
 * @example dayNumber('1970-01-03') // 2
 */
export function dayNumber(day: Day): number {
  let number = numbers.get(day)
  if (number === undefined) {
    number = Math.round(Date.parse(`${day.slice(0, 10)}T00:00:00Z`) / DAY_MS)
    if (numbers.size >= MOST_NUMBERS) numbers.clear()
    numbers.set(day, number)
  }
  return number
}

/**
 * Whole days from one calendar day to another, below zero when the other is earlier.
 * @example daysBetween('2026-03-28', '2026-03-30') // 2, also where the clocks change between them
 */
export function daysBetween(from: Day, to: Day): number {
  return dayNumber(to) - dayNumber(from)
}

/**
 * The day a number of days later.
 * @example addDays('2028-02-28', 2) // '2028-03-01'
 */
export function addDays(day: Day, days: number): Day {
  return formatISO(plusDays(parseISO(day.slice(0, 10)), days), { representation: 'date' })
}

/**
 * Age in completed years on a day, as the published equations and their charts count it. Who was born on 29 February
 * grows older on 1 March where the year has no such day.
 * @example ageInYears('1992-11-24', '2026-11-23') // 33
 */
export function ageInYears(birthDate: Day, onDay: Day): number {
  const [year = NaN, month = NaN, day = NaN] = birthDate.slice(0, 10).split('-').map(Number)
  const [nowYear = NaN, nowMonth = NaN, nowDay = NaN] = onDay.slice(0, 10).split('-').map(Number)
  const hadBirthday = nowMonth > month || (nowMonth === month && nowDay >= day)
  return nowYear - year - (hadBirthday ? 0 : 1)
}

/** Whether a text is a day that exists, written as year, month and day; 2026-02-30 is none. */
export function dayExists(text: string): boolean {
  if (!/^\d{4}-\d\d-\d\d$/.test(text)) return false
  const date = new Date(`${text}T00:00:00Z`)
  return !Number.isNaN(date.getTime()) && date.toISOString().startsWith(text)
}

/** Whether a text is a day of the calendar between 1900 and 2199. */
export function isDay(text: string): boolean {
  return /^(19|20|21)/.test(text) && dayExists(text)
}

/**
 * Weekday of a day: 1 Monday to 7 Sunday.
 * @example weekdayOf('2026-11-26') // 4
 */
export function weekdayOf(day: Day): number {
  return getISODay(parseISO(day))
}

/** The days Monday to Sunday of the week a day is in. */
export function daysOfWeek(day: Day): Day[] {
  const monday = addDays(day, 1 - weekdayOf(day))
  return Array.from({ length: 7 }, (_, i) => addDays(monday, i))
}
