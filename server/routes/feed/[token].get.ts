import { getRouterParam, setHeader } from 'h3'
import { subDays } from 'date-fns'
import { localDay } from '../../../core/calendar'
import { calendarOf } from '../../../exchange/calendar'
import { useDatabase } from '../../db/use-database'
import { ownOrigin } from '../../http/address'
import { failure } from '../../http/failure'
import { countAttempt } from '../../http/guessing'
import { defineRoute } from '../../http/route'
import { hashOf } from '../../http/tokens'
import { seesOf } from '../../repositories/absences'
import { bookingsForCalendar } from '../../repositories/bookings'
import { findCalendar } from '../../repositories/calendar-links'
import { dueDays } from '../../repositories/due-days'

/** How far back a calendar goes, days. */
const BACK_DAYS = 30

/** A calendar by its secret address: titles hold a name and nothing about bodies. */
export default defineRoute({ access: 'open', pace: 'secret' }, async (event) => {
  const token = /^([\w-]{43})\.ics$/.exec(getRouterParam(event, 'token') ?? '')?.[1]
  const db = await useDatabase()
  const found = token ? await findCalendar(db, hashOf(token)) : null
  if (!found) {
    await countAttempt(event, { account: 'calendar addresses', real: false, knownDevice: null })
    throw failure(404, 'This calendar address does not work any more.')
  }
  const from = subDays(new Date(), BACK_DAYS).toISOString()
  const zone = found.timeZone
  const sees = await seesOf(db, { ...found, staffId: found.madeBy }, localDay(Date.now(), zone))
  const visits = await bookingsForCalendar(db, { ...found, sees }, from)
  const due = await dueDays(db, found, localDay(Date.now(), zone), zone)
  setHeader(event, 'content-type', 'text/calendar; charset=utf-8')
  setHeader(event, 'cache-control', 'private, no-store')
  return calendarOf(
    found.studioName,
    visits.map((one) => ({ ...one, title: one.clientName, cancelled: one.state === 'cancelled' })),
    new URL(ownOrigin(event)).hostname,
    due,
  )
})
