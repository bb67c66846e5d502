import { and, asc, eq, lt } from 'drizzle-orm'
import type { PasskeyRecord } from '../../shared/schemas/passkey'
import type { Queryable, Transaction } from '../db/database'
import { passkey, passkeyChallenge, staff } from '../db/schema'

/** What a passkey is asked for. */
export type PasskeyPurpose = (typeof passkeyChallenge.$inferSelect)['purpose']

/** Keeps what a passkey is asked to sign; what nobody answered in time goes. */
export async function keepChallenge(
  tx: Transaction,
  asked: { hash: string; staffId: string | null; purpose: PasskeyPurpose; expiresAt: string },
  now = new Date().toISOString(),
): Promise<void> {
  await tx.delete(passkeyChallenge).where(lt(passkeyChallenge.expiresAt, now))
  await tx.insert(passkeyChallenge).values(asked)
}

/** Takes a challenge: it is answered once. False when there is none like it, or it is too old. */
export async function takeChallenge(
  tx: Transaction,
  { hash, staffId, purpose }: { hash: string; staffId: string | null; purpose: PasskeyPurpose },
  now = new Date().toISOString(),
): Promise<boolean> {
  const [row] = await tx.delete(passkeyChallenge).where(eq(passkeyChallenge.hash, hash)).returning()
  return row?.staffId === staffId && row.purpose === purpose && row.expiresAt > now
}

/** A person's passkeys, the oldest first. */
export async function listPasskeys(db: Queryable, staffId: string): Promise<PasskeyRecord[]> {
  return db
    .select({ id: passkey.id, name: passkey.name, addedAt: passkey.addedAt, usedAt: passkey.usedAt })
    .from(passkey)
    .where(eq(passkey.staffId, staffId))
    .orderBy(asc(passkey.addedAt), asc(passkey.id))
}

/** Those as a browser is asked for them. */
export async function passkeyIds(db: Queryable, staffId: string): Promise<{ id: string; transports: string[] }[]> {
  return db
    .select({ id: passkey.credentialId, transports: passkey.transports })
    .from(passkey)
    .where(eq(passkey.staffId, staffId))
}

/** A passkey by what its device calls it, with whoever it lets in; null when there is none, or they may not sign in. */
export async function findPasskey(db: Queryable, credentialId: string) {
  const [row] = await db
    .select({
      id: passkey.id,
      credentialId: passkey.credentialId,
      publicKey: passkey.publicKey,
      counter: passkey.counter,
      staffId: staff.id,
      studioId: staff.studioId,
    })
    .from(passkey)
    .innerJoin(staff, eq(staff.id, passkey.staffId))
    .where(and(eq(passkey.credentialId, credentialId), eq(staff.active, true)))
  return row ?? null
}

/** Keeps a new one. False when it is somebody's already. */
export async function addPasskey(tx: Transaction, row: typeof passkey.$inferInsert): Promise<boolean> {
  const added = await tx
    .insert(passkey)
    .values(row)
    .onConflictDoNothing({ target: passkey.credentialId })
    .returning({ id: passkey.id })
  return added.length > 0
}

/** Notes that one was used, and how often its device says. */
export async function notePasskey(tx: Transaction, id: string, counter: number): Promise<void> {
  await tx.update(passkey).set({ counter, usedAt: new Date().toISOString() }).where(eq(passkey.id, id))
}

/** Takes one of a person's away. False when there is none. */
export async function removePasskey(tx: Transaction, staffId: string, id: string): Promise<boolean> {
  const gone = await tx
    .delete(passkey)
    .where(and(eq(passkey.id, id), eq(passkey.staffId, staffId)))
    .returning({ id: passkey.id })
  return gone.length > 0
}

/** Takes all of a person's away. */
export async function removePasskeys(tx: Transaction, staffId: string): Promise<number> {
  const gone = await tx.delete(passkey).where(eq(passkey.staffId, staffId)).returning({ id: passkey.id })
  return gone.length
}
