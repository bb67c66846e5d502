import { differenceInCalendarDays, format, isSameYear, parseISO } from 'date-fns'

/** A day as people say it: "23 Oct", with the year when it is not this one. */
export function sayDay(instant: string): string {
  const date = parseISO(instant)
  return format(date, isSameYear(date, new Date()) ? 'd MMM' : 'd MMM yyyy')
}

/** How long ago: "today", "3 days ago", "5 weeks ago". */
export function sayAgo(instant: string): string {
  const days = differenceInCalendarDays(new Date(), parseISO(instant))
  if (days <= 0) return 'today'
  if (days === 1) return 'yesterday'
  return days < 14 ? `${days} days ago` : `${Math.round(days / 7)} weeks ago`
}

/** Today as an ISO day, where this person is. */
export function todayHere(): string {
  return format(new Date(), 'yyyy-MM-dd')
}
