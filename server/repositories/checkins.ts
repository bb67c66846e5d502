import { and, asc, count, desc, eq, gte, inArray, isNotNull, isNull, lt, max, or } from 'drizzle-orm'
import type { Reading, Strike } from '../../core/readings'
import type { CheckinRecord, EventsInput, Floor } from '../../shared/schemas/checkin'
import type { Database, Queryable } from '../db/database'
import { checkin, client, reading, staff, strike } from '../db/schema'
import type { SignedIn } from './staff'

const head = {
  id: checkin.id,
  clientId: checkin.clientId,
  protocolId: checkin.protocolId,
  side: checkin.side,
  startedAt: checkin.startedAt,
  finishedAt: checkin.finishedAt,
  startedBy: staff.name,
  note: checkin.note,
}

type Head = Omit<CheckinRecord, 'readings' | 'strikes'>

function ofClient(who: SignedIn, clientId: string) {
  return and(eq(client.studioId, who.studioId), eq(checkin.clientId, clientId))
}

async function withFacts(db: Queryable, rows: Head[]): Promise<CheckinRecord[]> {
  if (rows.length === 0) return []
  const facts = await db
    .select({
      checkinId: reading.checkinId,
      id: reading.id,
      site: reading.site,
      round: reading.round,
      value: reading.value,
      unit: reading.unit,
      takenAt: reading.takenAt,
      source: reading.source,
      struckAt: strike.struckAt,
    })
    .from(reading)
    .leftJoin(strike, eq(strike.readingId, reading.id))
    .where(
      inArray(
        reading.checkinId,
        rows.map((row) => row.id),
      ),
    )
    .orderBy(asc(reading.takenAt), asc(reading.id))
  const byCheckin = new Map<string, typeof facts>()
  for (const fact of facts) {
    const own = byCheckin.get(fact.checkinId)
    if (own) own.push(fact)
    else byCheckin.set(fact.checkinId, [fact])
  }
  return rows.map((row) => {
    const own = byCheckin.get(row.id) ?? []
    return {
      ...row,
      readings: own.map(({ checkinId: _, struckAt: __, ...fact }) => fact as Reading),
      strikes: own.flatMap((fact): Strike[] =>
        fact.struckAt ? [{ readingId: fact.id, struckAt: fact.struckAt }] : [],
      ),
    }
  })
}

function select(db: Queryable) {
  return db
    .select(head)
    .from(checkin)
    .innerJoin(client, eq(client.id, checkin.clientId))
    .innerJoin(staff, eq(staff.id, checkin.startedBy))
    .$dynamic()
}

/** One check-in of this studio with its facts, or null. */
export async function findCheckin(db: Queryable, who: SignedIn, id: string): Promise<CheckinRecord | null> {
  const rows = await select(db).where(and(eq(checkin.id, id), eq(client.studioId, who.studioId)))
  return (await withFacts(db, rows))[0] ?? null
}

/** Every check-in of a client with its facts, oldest first. */
export async function listCheckins(db: Queryable, who: SignedIn, clientId: string): Promise<CheckinRecord[]> {
  const rows = await select(db).where(ofClient(who, clientId)).orderBy(asc(checkin.startedAt))
  return withFacts(db, rows)
}

/** The finished check-in before this moment, or null: what "last time" means. */
export async function findLastFinished(
  db: Queryable,
  who: SignedIn,
  clientId: string,
  before: string,
): Promise<CheckinRecord | null> {
  const rows = await select(db)
    .where(and(ofClient(who, clientId), lt(checkin.startedAt, before), isNotNull(checkin.finishedAt)))
    .orderBy(desc(checkin.startedAt))
    .limit(1)
  return (await withFacts(db, rows))[0] ?? null
}

/** Starts a check-in, or gives the one already open for this client: two starts at once meet in one session. */
export async function startCheckin(
  db: Queryable,
  who: SignedIn,
  start: { id: string; clientId: string; protocolId: string; side: 'right' | 'left'; startedAt: string },
): Promise<string | null> {
  await db
    .insert(checkin)
    .values({ ...start, startedBy: who.staffId })
    .onConflictDoNothing()
  const rows = await db
    .select({ id: checkin.id })
    .from(checkin)
    .where(and(eq(checkin.clientId, start.clientId), or(eq(checkin.id, start.id), isNull(checkin.finishedAt))))
    .limit(1)
  return rows[0]?.id ?? null
}

/** Facts that cannot be stored, because their ids say they belong elsewhere. */
export class EventsRefused extends Error {}

/**
 * Stores readings and strikes as a set union: sending any of them again changes nothing. All or nothing.
 * @throws EventsRefused when an id belongs to another check-in, or a strike names a reading nobody sent
 */
export async function storeEvents(db: Database, who: SignedIn, checkinId: string, events: EventsInput): Promise<void> {
  const readingIds = [
    ...new Set([...events.readings.map(({ id }) => id), ...events.strikes.map(({ readingId }) => readingId)]),
  ]
  if (readingIds.length === 0) return
  await db.transaction(async (tx) => {
    if (events.readings.length > 0) {
      const rows = events.readings.map((fact) => ({ ...fact, checkinId, takenBy: who.staffId }))
      await tx.insert(reading).values(rows).onConflictDoNothing({ target: reading.id })
    }
    const stored = await tx
      .select({ id: reading.id, checkinId: reading.checkinId })
      .from(reading)
      .where(inArray(reading.id, readingIds))
    if (stored.some((row) => row.checkinId !== checkinId)) {
      throw new EventsRefused('A reading with this id belongs to another check-in.')
    }
    if (stored.length < readingIds.length) throw new EventsRefused('A strike names a reading that was never taken.')
    if (events.strikes.length > 0) {
      const rows = events.strikes.map((fact) => ({ ...fact, struckBy: who.staffId }))
      await tx.insert(strike).values(rows).onConflictDoNothing({ target: strike.readingId })
    }
  })
}

/** Finishes or annotates a check-in. */
export async function changeCheckin(
  db: Queryable,
  id: string,
  change: { finishedAt: string | null; note: string },
): Promise<void> {
  await db.update(checkin).set(change).where(eq(checkin.id, id))
}

/** Removes a check-in that holds no reading: a session started by mistake. False when it holds any. */
export async function discardEmptyCheckin(db: Queryable, id: string): Promise<boolean> {
  const [held] = await db.select({ readings: count() }).from(reading).where(eq(reading.checkinId, id))
  if ((held?.readings ?? 0) > 0) return false
  await db.delete(checkin).where(eq(checkin.id, id))
  return true
}

const floorLine = {
  clientId: client.id,
  clientName: client.name,
  checkinId: checkin.id,
  at: checkin.startedAt,
  readings: count(reading.id),
}

function floorLines(db: Queryable) {
  return db
    .select(floorLine)
    .from(checkin)
    .innerJoin(client, eq(client.id, checkin.clientId))
    .leftJoin(reading, eq(reading.checkinId, checkin.id))
    .groupBy(client.id, checkin.id)
    .orderBy(desc(checkin.startedAt))
    .$dynamic()
}

/** What the Floor shows. `dueBefore`: clients last measured before this instant are due. */
export async function findFloor(db: Queryable, who: SignedIn, dueBefore: string): Promise<Floor> {
  const here = eq(client.studioId, who.studioId)
  const open = await floorLines(db).where(and(here, isNull(checkin.finishedAt)))
  const finished = await floorLines(db)
    .where(and(here, isNotNull(checkin.finishedAt), gte(checkin.startedAt, dueBefore)))
    .limit(8)
  const lastAt = max(checkin.startedAt)
  const due = await db
    .select({ clientId: client.id, clientName: client.name, lastAt })
    .from(client)
    .leftJoin(checkin, eq(checkin.clientId, client.id))
    .where(and(here, isNull(client.archivedAt)))
    .groupBy(client.id)
    .having(or(isNull(lastAt), lt(lastAt, dueBefore)))
    .orderBy(asc(lastAt))
    .limit(30)
  return { open, finished, due }
}
