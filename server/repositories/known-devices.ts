import { and, desc, eq, lt } from 'drizzle-orm'
import type { Queryable, Transaction } from '../db/database'
import { knownDevice, staff } from '../db/schema'

const DEVICES_KEPT = 20

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

/** Whether a person has signed in on any device before. */
export async function knowsDevices(db: Queryable, staffId: string): Promise<boolean> {
  const rows = await db
    .select({ id: knownDevice.id })
    .from(knownDevice)
    .where(eq(knownDevice.staffId, staffId))
    .limit(1)
  return rows.length > 0
}

/** Whether somebody of a studio has signed in on a device: it is shared, and keeps its token. */
export async function isDeviceOf(db: Queryable, studioId: string, tokenHash: string): Promise<boolean> {
  const rows = await db
    .select({ id: knownDevice.id })
    .from(knownDevice)
    .innerJoin(staff, eq(staff.id, knownDevice.staffId))
    .where(and(eq(knownDevice.tokenHash, tokenHash), eq(staff.studioId, studioId)))
    .limit(1)
  return rows.length > 0
}
