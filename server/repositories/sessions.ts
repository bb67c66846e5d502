import { and, desc, eq, inArray, isNull, ne, sql } from 'drizzle-orm'
import { minutesToMilliseconds } from 'date-fns'
import type { SessionRecord } from '../../shared/schemas/account'
import type { Queryable, Transaction } from '../db/database'
import { localDay } from '../../core/calendar'
import type { StrangeSignIn } from '../../shared/schemas/device'
import { session, staff, studio } from '../db/schema'
import { seesOf } from './absences'
import { hasSecond } from './second-factors'
import type { AtWork, SignedIn } from './staff'

/** That a session is used is noted at most so often, minutes. */
const NOTED_EVERY = { least: 5, most: 60 } as const
/**
 * The page itself locks on the minute. A session whose page was closed, or cut off, is locked here: later than that, so that
 * a coach who measured without a network for a while is not asked in the middle of it.
 */
const LOCKED_UNUSED_MINUTES = 60

/** Clocks of two processes may differ by so much, minutes. */
const CLOCKS_DIFFER_MINUTES = 5

/**
 * Sessions that have not ended: not by a person, not unused for too long, not after the days a studio gives them, and not
 * begun or used under a clock ahead of its time.
 */
function running(now: Date) {
  const at = now.toISOString()
  return and(
    isNull(session.endedAt),
    sql`greatest(${session.startedAt}, ${session.seenAt}) <= ${at}::timestamptz + make_interval(mins => ${CLOCKS_DIFFER_MINUTES})`,
    sql`${session.startedAt} > ${at}::timestamptz - make_interval(days => ${studio.sessionDays})`,
    sql`${session.seenAt} > ${at}::timestamptz - make_interval(hours => ${studio.sessionIdleHours})`,
  )
}

/** Who a session lets in, and what it says of itself. */
export interface FoundSession extends AtWork {
  /** Its use was not noted for a while. */
  stale: boolean
  /** ISO instant of the last proof of who it is. */
  confirmedAt: string
  /** ISO instant; null: its device is open. */
  lockedAt: string | null
  /** The studio wants a second proof of everybody, and this person has none yet. */
  lacksSecond: boolean
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
      lockMinutes: studio.lockMinutes,
      lockedAt: session.lockedAt,
      lacksSecond: sql<boolean>`${studio.secondRequired} and not ${hasSecond(staff.id)}`,
    })
    .from(session)
    .innerJoin(staff, eq(staff.id, session.staffId))
    .innerJoin(studio, eq(studio.id, staff.studioId))
    .where(and(eq(session.id, id), eq(staff.active, true), running(now)))
  if (!row) return null
  const { seenAt, idleHours, coachesSee, lockMinutes, ...rest } = row
  const unusedFor = (minutes: number) => Date.parse(seenAt) < +now - minutesToMilliseconds(minutes)
  const left = lockMinutes > 0 && unusedFor(Math.max(LOCKED_UNUSED_MINUTES, lockMinutes))
  const person = { ...rest, sessionId: id, lockedAt: rest.lockedAt ?? (left ? now.toISOString() : null) }
  // Often enough that nobody at work runs into the limit.
  const most = lockMinutes > 0 ? NOTED_EVERY.least : NOTED_EVERY.most
  const every = Math.min(most, Math.max(NOTED_EVERY.least, (idleHours * 60) / 8))
  const stale = person.lockedAt === null && unusedFor(every)
  const sees = await seesOf(db, { ...person, coachesSee }, localDay(now, person.timeZone))
  return sees === 'all' ? { ...person, stale } : { ...person, sees, stale }
}

/** `provedAt`: by PIN, the last sign-in on the device with more than that. Its days count from there, and it confirms nothing. */
export async function startSession(
  tx: Transaction,
  { provedAt, ...fresh }: { id: string; staffId: string; device: string; strange: boolean; provedAt: string | null },
  now = new Date().toISOString(),
): Promise<void> {
  await tx.insert(session).values({
    ...fresh,
    startedAt: provedAt ?? now,
    seenAt: now,
    ...(provedAt === null ? { confirmedAt: now } : {}),
  })
}

/** The newest sign-in of a person on a device they did not know, running elsewhere, of which they have not said that it was theirs. */
export async function findStrange(db: Queryable, who: SignedIn, now = new Date()): Promise<StrangeSignIn | null> {
  // A command is nobody's session.
  if (!who.sessionId) return null
  const [row] = await db
    .select({ id: session.id, device: session.device, startedAt: session.startedAt })
    .from(session)
    .innerJoin(staff, eq(staff.id, session.staffId))
    .innerJoin(studio, eq(studio.id, staff.studioId))
    .where(
      and(eq(session.staffId, who.staffId), eq(session.strange, true), ne(session.id, who.sessionId), running(now)),
    )
    .orderBy(desc(session.startedAt))
    .limit(1)
  return row ?? null
}

/** Its person has said that a sign-in was theirs. False when there is nothing to say of it. */
export async function noteKnown(tx: Transaction, who: SignedIn, id: string): Promise<boolean> {
  const known = await tx
    .update(session)
    .set({ strange: false })
    .where(and(eq(session.id, id), eq(session.staffId, who.staffId), eq(session.strange, true)))
    .returning({ id: session.id })
  return known.length > 0
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
