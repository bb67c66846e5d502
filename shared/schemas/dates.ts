import { z } from 'zod'
import { isDay, latestDay } from '../../core/calendar'
import { FIRST_BIRTH_DATE, YEARS } from '../limits'

/** A calendar day, YYYY-MM-DD. */
export function day(missing: string) {
  return z.iso.date({ error: missing, abort: true }).refine(isDay, 'Please check the year.')
}

/**
 * A calendar day that has come already, somewhere on earth; whether it has come where the studio is is asked where the
 * studio is known (server/http/days.ts).
 */
export function pastDay(missing: string) {
  return z.iso
    .date({ error: missing, abort: true })
    .refine(
      (given) => given >= FIRST_BIRTH_DATE,
      `That is before ${FIRST_BIRTH_DATE.slice(0, 4)}: please check the year.`,
    )
    .refine((given) => given <= latestDay(Date.now()), 'This day is still to come: please check the year.')
}

/** A date and time of our days, as a device sends it. */
export const instant = z.iso.datetime({ error: 'This needs a date and time.', abort: true }).refine((given) => {
  const year = new Date(given).getUTCFullYear()
  return year >= YEARS.first && year <= YEARS.last
}, 'This date is not of our days: check the clock of this device.')
