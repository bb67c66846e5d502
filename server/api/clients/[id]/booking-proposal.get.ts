import { addDays } from '../../../../core/calendar'
import { findProtocol, PROTOCOLS, protocolFor } from '../../../../core/protocols'
import { ENOUGH_VISITS, nextDate, proposeTime, SLOT_MINUTES, visitMinutes } from '../../../../core/schedule'
import type { BookingProposal } from '../../../../shared/schemas/booking'
import { useDatabase } from '../../../db/use-database'
import { boardOf } from '../../../http/bookings'
import { todayAt, zoneOf } from '../../../http/days'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { lastPlace } from '../../../repositories/bookings'
import { findLastFinished } from '../../../repositories/checkins'
import { findSchedule } from '../../../repositories/schedules'
import { listStaff } from '../../../repositories/staff'
import { visitLengths } from '../../../repositories/visit-lengths'

/** When a client's next visit is proposed: their next date, at the hour of last time, by who measured them. */
export default defineRoute(
  { access: 'coach', proof: 'second', looked: 'client' },
  async (event): Promise<BookingProposal> => {
    const client = await clientAt(event)
    const who = signedInAs(event)
    const db = await useDatabase()
    const [today, zone] = [todayAt(event), zoneOf(event)]
    const now = new Date().toISOString()
    const last = await findLastFinished(db, who, client.id, now)
    const next = nextDate(last?.day ?? null, await findSchedule(db, client.id), today)
    const protocol = protocolFor(findProtocol(last?.protocolId ?? '') ?? PROTOCOLS['laboratory-7'], client.sex)
    const recorder = last?.recorderId !== null && last !== null
    const own = await visitLengths(db, who, protocol.id, recorder)
    const minutes = Math.ceil(visitMinutes(protocol, { recorder, own }) / SLOT_MINUTES) * SLOT_MINUTES
    const here = new Set((await listStaff(db, who)).map(({ id }) => id))
    const assessorId = last?.assessorId && here.has(last.assessorId) ? last.assessorId : who.staffId
    const place = await lastPlace(db, client.id)
    const day = next.day < today ? today : next.day
    const { bookings, absences } = await boardOf(event, { from: addDays(day, -1), to: addDays(day, 2) })
    const others = bookings.filter(({ state }) => state === 'booked')
    const about = { id: '', clientId: client.id, assessorId, place, minutes }
    const proposal = proposeTime(about, { day, lastAt: last?.startedAt ?? null, now }, others, absences, zone)
    const minutesFrom = own.length >= ENOUGH_VISITS ? 'studio' : 'usual'
    return { ...proposal, minutes, minutesFrom, assessorId, place, protocolId: last?.protocolId ?? null, next }
  },
)
