import { and, eq, isNull, lt, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import type { SecondFactorState } from '../../shared/schemas/account'
import type { Queryable, Transaction } from '../db/database'
import { recoveryCode, secondFactor, staff } from '../db/schema'
import type { InStudio } from './staff'

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

/** Uses a code up. False when there is none like it left. */
export async function takeRecoveryCode(tx: Transaction, staffId: string, codeHash: string): Promise<boolean> {
  const taken = await tx
    .update(recoveryCode)
    .set({ usedAt: new Date().toISOString() })
    .where(and(eq(recoveryCode.staffId, staffId), eq(recoveryCode.codeHash, codeHash), isNull(recoveryCode.usedAt)))
    .returning({ id: recoveryCode.id })
  return taken.length > 0
}

/** Takes a person's second proof away, codes included. False when there is none, or they are of another studio. */
export async function removeSecondFactor(tx: Transaction, who: InStudio, staffId: string): Promise<boolean> {
  const [own] = await tx
    .select({ id: staff.id })
    .from(staff)
    .where(and(eq(staff.id, staffId), eq(staff.studioId, who.studioId)))
  if (!own) return false
  await replaceCodes(tx, staffId, [])
  const gone = await tx
    .delete(secondFactor)
    .where(eq(secondFactor.staffId, staffId))
    .returning({ id: secondFactor.staffId })
  return gone.length > 0
}
