import { and, desc, eq, inArray, isNull, lt, sql } from 'drizzle-orm'
import { minutesToMilliseconds } from 'date-fns'
import type { SessionRecord } from '../../shared/schemas/account'
import type { Queryable, Transaction } from '../db/database'
import { localDay } from '../../core/calendar'
import { knownDevice, session, staff, studio } from '../db/schema'
import { standsInFor } from './absences'
import type { SignedIn } from './staff'

const DEVICES_KEPT = 20
/** That a session is used is noted at most so often, minutes. */
const NOTED_EVERY = { least: 5, most: 60 } as const

/** Sessions that have not ended: not by somebody, not unused for too long, not after the days a studio gives them. */
function running(now: Date) {
  const at = now.toISOString()
  return and(
    isNull(session.endedAt),
    sql`${session.startedAt} > ${at}::timestamptz - make_interval(days => ${studio.sessionDays})`,
    sql`${session.seenAt} > ${at}::timestamptz - make_interval(hours => ${studio.sessionIdleHours})`,
  )
}

/** Who a session lets in, and what it says of itself. */
export interface FoundSession extends SignedIn {
  /** Its use was not noted for a while. */
  stale: boolean
  /** ISO instant of the last proof of who it is. */
  confirmedAt: string
}

/** The person a session that runs belongs to, while they may sign in; null otherwise. */
export async function findSession(db: Queryable, id: string, now = new Date()): Promise<FoundSession | null> {
  const [row] = await db
    .select({
      staffId: staff.id,
      studioId: staff.studioId,
      role: staff.role,
      seenAt: session.seenAt,
      confirmedAt: session.confirmedAt,
      idleHours: studio.sessionIdleHours,
      coachesSee: studio.coachesSee,
      timeZone: studio.timeZone,
    })
    .from(session)
    .innerJoin(staff, eq(staff.id, session.staffId))
    .innerJoin(studio, eq(studio.id, staff.studioId))
    .where(and(eq(session.id, id), eq(staff.active, true), running(now)))
  if (!row) return null
  const { seenAt, idleHours, coachesSee, timeZone, ...person } = row
  // Often enough that nobody at work runs into the limit.
  const every = Math.min(NOTED_EVERY.most, Math.max(NOTED_EVERY.least, (idleHours * 60) / 8))
  const stale = Date.parse(seenAt) < +now - minutesToMilliseconds(every)
  // Leads answer for everybody; a recorder sees what is being measured and nothing else.
  if (coachesSee === 'all' || person.role !== 'coach') return { ...person, sessionId: id, stale }
  const sees = [person.staffId, ...(await standsInFor(db, person.staffId, localDay(now, timeZone)))]
  return { ...person, sees, sessionId: id, stale }
}

export async function startSession(
  tx: Transaction,
  fresh: { id: string; staffId: string; device: string },
  now = new Date().toISOString(),
): Promise<void> {
  await tx.insert(session).values({ ...fresh, startedAt: now, seenAt: now, confirmedAt: now })
}

/** Notes that its person has proved once more who they are. */
export async function noteConfirmed(tx: Transaction, id: string, now = new Date().toISOString()): Promise<void> {
  await tx.update(session).set({ confirmedAt: now }).where(eq(session.id, id))
}

export async function noteSeen(tx: Transaction, id: string, now = new Date().toISOString()): Promise<void> {
  await tx.update(session).set({ seenAt: now }).where(eq(session.id, id))
}

/** Sessions that run: of one person, or of everybody in the studio; the newest first. */
export async function listSessions(
  db: Queryable,
  who: SignedIn,
  everybody: boolean,
  now = new Date(),
): Promise<SessionRecord[]> {
  const whose = everybody ? eq(staff.studioId, who.studioId) : eq(staff.id, who.staffId)
  const rows = await db
    .select({
      id: session.id,
      staffId: session.staffId,
      name: staff.name,
      device: session.device,
      startedAt: session.startedAt,
      seenAt: session.seenAt,
    })
    .from(session)
    .innerJoin(staff, eq(staff.id, session.staffId))
    .innerJoin(studio, eq(studio.id, staff.studioId))
    .where(and(whose, running(now)))
    .orderBy(desc(session.seenAt), desc(session.id))
  return rows.map((row) => ({ ...row, own: row.id === who.sessionId }))
}

/** Ends sessions of a person: one, or all but one. @returns the ids of those that ended */
export async function endSessions(
  tx: Transaction,
  staffId: string,
  which: { only: string } | { but: string | null },
  now = new Date().toISOString(),
): Promise<string[]> {
  const open = await tx
    .select({ id: session.id })
    .from(session)
    .where(and(eq(session.staffId, staffId), isNull(session.endedAt)))
  const ids = open.map(({ id }) => id).filter((id) => ('only' in which ? id === which.only : id !== which.but))
  if (ids.length > 0) await tx.update(session).set({ endedAt: now }).where(inArray(session.id, ids))
  return ids
}

/** Whether a person has signed in on a device before. */
export async function isKnownDevice(db: Queryable, staffId: string, tokenHash: string): Promise<boolean> {
  const rows = await db
    .select({ id: knownDevice.id })
    .from(knownDevice)
    .where(and(eq(knownDevice.staffId, staffId), eq(knownDevice.tokenHash, tokenHash)))
  return rows.length > 0
}

/** Remembers a device of a person; the oldest beyond twenty are forgotten. */
export async function rememberDevice(tx: Transaction, id: string, staffId: string, tokenHash: string): Promise<void> {
  const at = new Date().toISOString()
  await tx
    .insert(knownDevice)
    .values({ id, staffId, tokenHash, at })
    .onConflictDoUpdate({ target: [knownDevice.staffId, knownDevice.tokenHash], set: { at } })
  const [oldest] = await tx
    .select({ at: knownDevice.at })
    .from(knownDevice)
    .where(eq(knownDevice.staffId, staffId))
    .orderBy(desc(knownDevice.at))
    .offset(DEVICES_KEPT - 1)
    .limit(1)
  if (oldest) await tx.delete(knownDevice).where(and(eq(knownDevice.staffId, staffId), lt(knownDevice.at, oldest.at)))
}

/** Forgets every device of a person: after a reset nobody is known. */
export async function forgetDevices(tx: Transaction, staffId: string): Promise<void> {
  await tx.delete(knownDevice).where(eq(knownDevice.staffId, staffId))
}
