import { and, eq, inArray, isNull, lt, sql, type SQL } from 'drizzle-orm'
import type { PgColumn } from 'drizzle-orm/pg-core'
import { v7 as uuid } from 'uuid'
import type { SecondFactorState } from '../../shared/schemas/account'
import type { Queryable, Transaction } from '../db/database'
import { passkey, recoveryCode, secondFactor, staff, studio } from '../db/schema'
import { ofRow } from './of-row'
import { listPasskeys, removePasskeys } from './passkeys'
import type { InStudio } from './staff'

/** Whether a person has a second proof that counts: a code, or a passkey. Within a question about staff. */
export const hasSecond = (staffId: PgColumn): SQL<boolean> => sql<boolean>`(exists (
  select from ${secondFactor} where ${ofRow(secondFactor.staffId)} = ${ofRow(staffId)} and ${ofRow(secondFactor.confirmedAt)} is not null
) or exists (select from ${passkey} where ${ofRow(passkey.staffId)} = ${ofRow(staffId)}))`

/** Whether a studio wants a second proof and a person has none. */
export async function lacksSecond(db: Queryable, who: { staffId: string; studioId: string }): Promise<boolean> {
  const [row] = await db
    .select({ lacks: sql<boolean>`${studio.secondRequired} and not ${hasSecond(staff.id)}` })
    .from(staff)
    .innerJoin(studio, eq(studio.id, staff.studioId))
    .where(and(eq(staff.id, who.staffId), eq(staff.studioId, who.studioId)))
  return row?.lacks ?? false
}

/** Whether a studio wants a second proof and a passkey is all a person without a code has. */
export async function hasOnlyPasskey(db: Queryable, who: { staffId: string; studioId: string }): Promise<boolean> {
  const [row] = await db.select({ wants: studio.secondRequired }).from(studio).where(eq(studio.id, who.studioId))
  return (row?.wants ?? false) && (await listPasskeys(db, who.staffId)).length > 0
}

/** What is kept of a person's second proof; null: none. */
export async function findSecondFactor(db: Queryable, staffId: string) {
  const [row] = await db.select().from(secondFactor).where(eq(secondFactor.staffId, staffId))
  return row ?? null
}

/** Whether it is on, and how many codes on paper are left. */
export async function secondFactorState(db: Queryable, staffId: string): Promise<SecondFactorState> {
  const found = await findSecondFactor(db, staffId)
  const isOn = found !== null && found.confirmedAt !== null
  const [{ left = 0 } = {}] = await db
    .select({ left: sql<number>`count(*)::int` })
    .from(recoveryCode)
    .where(and(eq(recoveryCode.staffId, staffId), isNull(recoveryCode.usedAt)))
  return { since: isOn ? found.confirmedAt : null, codesLeft: isOn ? left : 0 }
}

/** Keeps a secret that does not count yet. False when one is on already. */
export async function beginSecondFactor(tx: Transaction, staffId: string, secret: string): Promise<boolean> {
  const kept = await tx
    .insert(secondFactor)
    .values({ staffId, secret })
    .onConflictDoUpdate({
      target: secondFactor.staffId,
      set: { secret, lastStep: 0 },
      setWhere: isNull(secondFactor.confirmedAt),
    })
    .returning({ staffId: secondFactor.staffId })
  return kept.length > 0
}

/** Notes that a code of this step was taken. False when it, or a later one, was taken before. */
export async function takeStep(tx: Transaction, staffId: string, step: number): Promise<boolean> {
  const taken = await tx
    .update(secondFactor)
    .set({ lastStep: step })
    .where(and(eq(secondFactor.staffId, staffId), lt(secondFactor.lastStep, step)))
    .returning({ staffId: secondFactor.staffId })
  return taken.length > 0
}

/** From now on it counts. */
export async function confirmSecondFactor(tx: Transaction, staffId: string): Promise<void> {
  await tx.update(secondFactor).set({ confirmedAt: new Date().toISOString() }).where(eq(secondFactor.staffId, staffId))
}

/** Puts codes on paper in the place of those there were. */
export async function replaceCodes(tx: Transaction, staffId: string, hashes: readonly string[]): Promise<void> {
  await tx.delete(recoveryCode).where(eq(recoveryCode.staffId, staffId))
  if (hashes.length > 0)
    await tx.insert(recoveryCode).values(hashes.map((codeHash) => ({ id: uuid(), staffId, codeHash })))
}

/** Uses a code up, by either way it may be stored. False when there is none like it left. */
export async function takeRecoveryCode(tx: Transaction, staffId: string, hashes: readonly string[]): Promise<boolean> {
  const taken = await tx
    .update(recoveryCode)
    .set({ usedAt: new Date().toISOString() })
    .where(and(eq(recoveryCode.staffId, staffId), inArray(recoveryCode.codeHash, hashes), isNull(recoveryCode.usedAt)))
    .returning({ id: recoveryCode.id })
  return taken.length > 0
}

/** Takes a person's code away, with those on paper. False when there is none. */
export async function removeCode(tx: Transaction, staffId: string): Promise<boolean> {
  await replaceCodes(tx, staffId, [])
  const gone = await tx
    .delete(secondFactor)
    .where(eq(secondFactor.staffId, staffId))
    .returning({ id: secondFactor.staffId })
  return gone.length > 0
}

/** Takes every second proof of somebody in the studio away. @returns what there was; nothing for anybody else */
export async function removeSecondFactor(tx: Transaction, who: InStudio, staffId: string) {
  const [own] = await tx
    .select({ id: staff.id })
    .from(staff)
    .where(and(eq(staff.id, staffId), eq(staff.studioId, who.studioId)))
  if (!own) return { code: false, passkeys: 0 }
  return { code: await removeCode(tx, staffId), passkeys: await removePasskeys(tx, staffId) }
}
