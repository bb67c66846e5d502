import { and, desc, eq, gte, isNotNull, isNull, sql } from 'drizzle-orm'
import { addDays, dayBegins, daysBetween, daysOfWeek, type Day } from '../../core/calendar'
import { CHECK_EVERY_DAYS } from '../../core/cautions'
import { faultOf } from '../../core/devices'
import { driftSaid } from '../../core/following'
import { CADENCE_DAYS, dueOn, nextDate, nextEvent } from '../../core/schedule'
import { correctionOn } from '../../shared/checkin-facts'
import type { Floor } from '../../shared/schemas/checkin'
import type { Queryable } from '../db/database'
import { checkin, client, reading } from '../db/schema'
import type { Caliper } from '../../shared/schemas/caliper'
import { clientsBooked } from './bookings'
import { findBoard } from './briefs'
import { listCalipers } from './calipers'
import { waitingHandIns } from './hand-ins'
import { driftsOf, peopleToMeasure, verdictsOf } from './client-lines'
import { seenBy } from './seen-by'
import { listStaff, type SignedIn } from './staff'
import { listed } from './followed-clients'
import { suspensionsOf } from './suspensions'
import { isVisit } from './visits'

const floorLine = {
  clientId: client.id,
  clientName: client.name,
  recorderId: checkin.recorderId,
  checkinId: checkin.id,
  at: checkin.startedAt,
  day: checkin.day,
  // For the few lines that are shown, instead of counting everybody's.
  readings: sql<number>`(select count(*)::int from ${reading} where ${reading.checkinId} = ${checkin.id})`,
}

function floorLines(db: Queryable) {
  return db
    .select(floorLine)
    .from(checkin)
    .innerJoin(client, eq(client.id, checkin.clientId))
    .orderBy(desc(checkin.startedAt))
    .$dynamic()
}

const NO_VERDICT = { change: null, figure: null }
/** How far ahead the floor looks. */
const SOON_DAYS = 14
/** And for days that do not move. */
const EVENT_DAYS = 56
/** Most people the floor names as due. */
const MOST_DUE = 30

/** Calipers that failed their last check, until they are put right, and those not checked for too long; the longest first. */
function calipersToCheck(calipers: readonly Caliper[], today: Day): Floor['calipers'] {
  return calipers
    .map((one) => ({
      id: one.id,
      name: one.name,
      days: one.checkedOn === null ? null : daysBetween(one.checkedOn, today),
      fault: faultOf({
        deviationMm: one.deviationMm,
        pressure: one.pressure ?? null,
        corrected: correctionOn(one, today) !== null,
      }),
    }))
    .filter(({ days, fault }) => fault !== null || days === null || days > CHECK_EVERY_DAYS)
    .sort((a, b) => Number(b.fault !== null) - Number(a.fault !== null) || (b.days ?? Infinity) - (a.days ?? Infinity))
}

/** Open sheets a recorder was called to: visits and turns of studies. */
export function findSheetsOf(db: Queryable, who: SignedIn): Promise<Floor['open']> {
  return floorLines(db).where(
    and(eq(client.studioId, who.studioId), eq(checkin.recorderId, who.staffId), isNull(checkin.finishedAt)),
  )
}

/** Who has something suspended, by name. */
async function suspendedOnFloor(db: Queryable, who: SignedIn, today: Day): Promise<Floor['suspended']> {
  const people = await listed(db, who, false)
  const found = await suspensionsOf(db, who, people, today)
  return people.flatMap(({ id, name }) => {
    const suspensions = found.get(id)
    return suspensions ? [{ clientId: id, clientName: name, suspensions }] : []
  })
}

/** What the Floor shows on a day of the studio. */
export async function findFloor(db: Queryable, who: SignedIn, today: Day, timeZone: string): Promise<Floor> {
  const here = and(eq(client.studioId, who.studioId), seenBy(who))
  const open = await floorLines(db).where(and(here, isNull(checkin.finishedAt), isVisit))
  const finished = await floorLines(db)
    .where(and(here, isNotNull(checkin.finishedAt), isVisit, gte(checkin.day, addDays(today, -CADENCE_DAYS))))
    .limit(8)
  const people = await peopleToMeasure(db, who)
  const planned = people.map((person) => {
    const next = nextDate(person.lastDay, person.schedule, today)
    return { ...person, next, ...dueOn(next, today), event: nextEvent(person.schedule, today) }
  })
  const horizon = addDays(today, SOON_DAYS)
  const soon = planned
    .filter(({ due, next }) => !due && next.day <= horizon)
    .sort((a, b) => (a.next.day < b.next.day ? -1 : 1))
    .map(({ clientId, clientName, next }) => ({ clientId, clientName, dueOn: next.day, next }))
  const events = planned
    .flatMap(({ clientId, clientName, event }) =>
      event && event.day <= addDays(today, EVENT_DAYS) ? [{ clientId, clientName, event }] : [],
    )
    .sort((a, b) => (a.event.day < b.event.day ? -1 : 1))
  const [monday = today, , , , , , sunday = today] = daysOfWeek(today)
  const week = await findBoard(db, who, { from: monday, to: sunday }, today, timeZone)
  const verdicts = await verdictsOf(db, who, [...new Set(finished.map(({ clientId }) => clientId))])
  // A verdict speaks of a client's newest check-in; an older line of the same client holds none.
  const newest = new Map(people.map(({ clientId, lastDay: last }) => [clientId, last]))
  const ids = people.map(({ clientId }) => clientId)
  const drifts = await driftsOf(db, who, ids, today)
  const names = new Map((await listStaff(db, who)).map(({ id, name }) => [id, name]))
  return {
    week,
    booked: await clientsBooked(db, who, dayBegins(today, timeZone)),
    handIns: await waitingHandIns(db, who),
    suspended: await suspendedOnFloor(db, who, today),
    calipers: calipersToCheck(await listCalipers(db, who), today),
    open,
    finished: finished.map((line) => ({
      ...line,
      ...((newest.get(line.clientId) === line.day && verdicts.get(line.clientId)) || NO_VERDICT),
    })),
    drifts: drifts.map((drift) => ({
      assessorId: drift.assessorId,
      said: driftSaid(drift, names.get(drift.assessorId) ?? 'one assessor'),
    })),
    due: planned
      .filter(({ due }) => due)
      .sort((a, b) => Number(b.overdue) - Number(a.overdue) || (a.next.day < b.next.day ? -1 : 1))
      .slice(0, MOST_DUE)
      .map(({ clientId, clientName, lastDay: last, next, overdue }) => ({
        clientId,
        clientName,
        lastDay: last,
        next,
        overdue,
      })),
    events: events.slice(0, MOST_DUE),
    soon: soon.slice(0, MOST_DUE),
  }
}
