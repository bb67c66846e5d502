import { format, isSameYear, parseISO } from 'date-fns'
import { ref } from 'vue'
import { daysBetween, localDay, sayInZone, type Day } from '#core/calendar'

/** The zone the studio counts its days in; until it is known, this device's own. */
const zone = ref(Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC')

/** Says where the studio is. */
export function setStudioZone(timeZone: string): void {
  zone.value = timeZone
}

/** The zone days are shown in. */
export function studioZone(): string {
  return zone.value
}

/** The zone this device is set to. */
export function deviceZone(): string {
  return Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC'
}

/** The day of an instant where the studio is; a day stays what it is. */
function dayOf(dayOrInstant: string): Day {
  return dayOrInstant.length === 10 ? dayOrInstant : localDay(dayOrInstant, zone.value)
}

/** A day as people say it: "23 Oct", with the year when it is not this one. */
export function sayDay(dayOrInstant: string): string {
  const date = parseISO(dayOf(dayOrInstant))
  return format(date, isSameYear(date, parseISO(todayHere())) ? 'd MMM' : 'd MMM yyyy')
}

/** A day with its year, always: for lists that run over years. */
export function sayFullDay(dayOrInstant: string): string {
  return format(parseISO(dayOf(dayOrInstant)), 'd MMM yyyy')
}

/** A day by a date-fns pattern. */
export function sayDayAs(day: Day, pattern: string): string {
  return format(parseISO(day), pattern)
}

/** How long ago: "today", "3 days ago", "5 weeks ago". */
export function sayAgo(dayOrInstant: string): string {
  const days = daysBetween(dayOf(dayOrInstant), todayHere())
  if (days <= 0) return 'today'
  if (days === 1) return 'yesterday'
  return days < 14 ? `${days} days ago` : `${Math.round(days / 7)} weeks ago`
}

/** An instant as the clocks of the studio show it, by a date-fns pattern. */
export function sayTime(instant: string | number | Date, pattern = 'HH:mm'): string {
  return sayInZone(instant, zone.value, pattern)
}

/** Today where the studio is. */
export function todayHere(): Day {
  return localDay(Date.now(), zone.value)
}
