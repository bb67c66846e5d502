import { defineEventHandler } from 'h3'
import type { CalendarLinkRecord } from '../../../shared/schemas/booking'
import { useDatabase } from '../../db/use-database'
import { signedInAs } from '../../http/signed-in'
import { listCalendarLinks } from '../../repositories/calendar-links'

/** Calendar addresses that work. */
export default defineEventHandler(async (event): Promise<CalendarLinkRecord[]> =>
  listCalendarLinks(await useDatabase(), signedInAs(event)),
)
