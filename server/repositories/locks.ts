import { and, asc, eq, gt, lt, sql } from 'drizzle-orm'
import { MOST_PIN_TRIES } from '../../shared/limits'
import type { LockPerson } from '../../shared/schemas/device'
import type { Queryable, Transaction } from '../db/database'
import { deviceKey, knownDevice, pin, session, staff, studio } from '../db/schema'
import type { InStudio } from './staff'

/** Keeps a person's PIN, sealed. */
export async function setPin(tx: Transaction, staffId: string, secret: string): Promise<void> {
  const fresh = { secret, tries: 0, setAt: new Date().toISOString() }
  await tx
    .insert(pin)
    .values({ staffId, ...fresh })
    .onConflictDoUpdate({ target: pin.staffId, set: fresh })
}

/** Takes a PIN away. False when there is none. */
export async function removePin(tx: Transaction, staffId: string): Promise<boolean> {
  const gone = await tx.delete(pin).where(eq(pin.staffId, staffId)).returning({ staffId: pin.staffId })
  return gone.length > 0
}

/** A PIN that still opens something; null when there is none, or it was wrong too often. */
export async function findPin(db: Queryable, staffId: string): Promise<string | null> {
  const [row] = await db
    .select({ secret: pin.secret })
    .from(pin)
    .where(and(eq(pin.staffId, staffId), lt(pin.tries, MOST_PIN_TRIES)))
  return row?.secret ?? null
}

/** Counts a try before it is looked at, so that many at once are many. @returns how many are left after it; null: none was */
export async function countPin(tx: Transaction, staffId: string): Promise<number | null> {
  const [row] = await tx
    .update(pin)
    .set({ tries: sql`${pin.tries} + 1` })
    .where(and(eq(pin.staffId, staffId), lt(pin.tries, MOST_PIN_TRIES)))
    .returning({ tries: pin.tries })
  return row ? MOST_PIN_TRIES - row.tries : null
}

/** A PIN was right, or its person has proved otherwise who they are: it opens again. */
export async function pinWorks(tx: Transaction, staffId: string): Promise<void> {
  await tx
    .update(pin)
    .set({ tries: 0 })
    .where(and(eq(pin.staffId, staffId), gt(pin.tries, 0)))
}

/** Locks a session: nothing answers to it until it is opened. False when it was locked before. */
export async function lockSession(tx: Transaction, id: string, at: string): Promise<boolean> {
  const locked = await tx
    .update(session)
    .set({ lockedAt: at })
    .where(and(eq(session.id, id), sql`${session.lockedAt} is null`))
    .returning({ id: session.id })
  return locked.length > 0
}

/** Opens it again. */
export async function openSessionAgain(tx: Transaction, id: string, now = new Date().toISOString()): Promise<void> {
  await tx.update(session).set({ lockedAt: null, seenAt: now }).where(eq(session.id, id))
}

/** Somebody who may go on at a device by PIN, and their last sign-in on it with more than that. */
interface DevicePerson extends LockPerson {
  provedAt: string
}

/** Who of a studio has signed in on a device, within the days a session may last. */
export async function peopleOfDevice(
  db: Queryable,
  { studioId }: InStudio,
  tokenHash: string,
  now = new Date(),
): Promise<DevicePerson[]> {
  return db
    .select({
      id: staff.id,
      name: staff.name,
      provedAt: knownDevice.at,
      hasPin: sql<boolean>`coalesce(${pin.tries} < ${MOST_PIN_TRIES}, false)`,
    })
    .from(knownDevice)
    .innerJoin(staff, eq(staff.id, knownDevice.staffId))
    .innerJoin(studio, eq(studio.id, staff.studioId))
    .leftJoin(pin, eq(pin.staffId, staff.id))
    .where(
      and(
        eq(knownDevice.tokenHash, tokenHash),
        eq(staff.studioId, studioId),
        eq(staff.active, true),
        sql`${knownDevice.at} > ${now.toISOString()}::timestamptz - make_interval(days => ${studio.sessionDays})`,
      ),
    )
    .orderBy(asc(staff.name), asc(staff.id))
}

/** The studio's own key for its devices, as stored; null: none was made yet. */
export async function findDeviceKey(db: Queryable, { studioId }: InStudio): Promise<string | null> {
  const [row] = await db.select({ secret: deviceKey.secret }).from(deviceKey).where(eq(deviceKey.studioId, studioId))
  return row?.secret ?? null
}

/** Keeps a key unless there is one already. @returns the one that counts */
export async function keepDeviceKey(tx: Transaction, who: InStudio, secret: string): Promise<string> {
  await tx
    .insert(deviceKey)
    .values({ studioId: who.studioId, secret, madeAt: new Date().toISOString() })
    .onConflictDoNothing({ target: deviceKey.studioId })
  return (await findDeviceKey(tx, who)) ?? secret
}
