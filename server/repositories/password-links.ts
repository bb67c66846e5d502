import { and, eq, gt, isNull } from 'drizzle-orm'
import type { Queryable, Transaction } from '../db/database'
import { passwordLink, staff } from '../db/schema'
import type { SignedIn } from './staff'

/** Keeps a link for a person's new password; earlier ones of theirs stop working. */
export async function addPasswordLink(
  tx: Transaction,
  who: SignedIn,
  link: { id: string; staffId: string; tokenHash: string; expiresAt: string },
): Promise<void> {
  const usedAt = new Date().toISOString()
  await tx
    .update(passwordLink)
    .set({ usedAt })
    .where(and(eq(passwordLink.staffId, link.staffId), isNull(passwordLink.usedAt)))
  await tx.insert(passwordLink).values({ ...link, madeBy: who.staffId })
}

/** Whose password a link that still works is for, or null. */
export async function findPasswordLink(
  db: Queryable,
  tokenHash: string,
): Promise<{ id: string; staffId: string; studioId: string } | null> {
  const [row] = await db
    .select({ id: passwordLink.id, staffId: passwordLink.staffId, studioId: staff.studioId })
    .from(passwordLink)
    .innerJoin(staff, eq(staff.id, passwordLink.staffId))
    .where(
      and(
        eq(passwordLink.tokenHash, tokenHash),
        isNull(passwordLink.usedAt),
        gt(passwordLink.expiresAt, new Date().toISOString()),
        eq(staff.active, true),
      ),
    )
  return row ?? null
}

/** Uses a link up. False when somebody was faster. */
export async function usePasswordLink(tx: Transaction, id: string): Promise<boolean> {
  const used = await tx
    .update(passwordLink)
    .set({ usedAt: new Date().toISOString() })
    .where(and(eq(passwordLink.id, id), isNull(passwordLink.usedAt)))
    .returning({ id: passwordLink.id })
  return used.length > 0
}
