import { setHeader } from 'h3'
import { calendarOf } from '../../../../exchange/calendar'
import { useDatabase } from '../../../db/use-database'
import { ownOrigin } from '../../../http/address'
import { bookingAt } from '../../../http/bookings'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { findMe } from '../../../repositories/staff'

/** How long before a visit a handed-over entry rings, minutes. */
const ALARM_MINUTES = 120

/** One visit as a calendar entry to hand over to the client. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const line = await bookingAt(event)
  const me = await findMe(await useDatabase(), signedInAs(event))
  const studio = me?.studio.name ?? ''
  const visit = {
    ...line,
    title: `Visit at ${studio}`,
    cancelled: line.state === 'cancelled',
    changedAt: new Date().toISOString(),
    alarmMinutes: ALARM_MINUTES,
  }
  setHeader(event, 'content-type', 'text/calendar; charset=utf-8')
  setHeader(event, 'content-disposition', 'attachment; filename="visit.ics"')
  return calendarOf(studio, [visit], new URL(ownOrigin(event)).hostname)
})
