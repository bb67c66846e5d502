import type { CalendarLinkRecord } from '../../../shared/schemas/booking'
import { useDatabase } from '../../db/use-database'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { listCalendarLinks } from '../../repositories/calendar-links'

/** Calendar addresses that work. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<CalendarLinkRecord[]> =>
  listCalendarLinks(await useDatabase(), signedInAs(event)),
)
