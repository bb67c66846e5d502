import { z } from 'zod'

/** Today as YYYY-MM-DD; a day ahead is allowed so that time zones east of the server are not "the future". */
function tomorrow(): string {
  return new Date(Date.now() + 24 * 60 * 60 * 1000).toISOString().slice(0, 10)
}

/** A calendar day that has come already. */
export function pastDay(missing: string) {
  return z.iso
    .date({ error: missing, abort: true })
    .refine((day) => day >= '1900-01-01', 'That is before 1900: please check the year.')
    .refine((day) => day < tomorrow(), 'This day is still to come: please check the year.')
}
