import { and, eq } from 'drizzle-orm'
import type { Queryable, Transaction } from '../db/database'
import { landmarkNote } from '../db/schema'

/** A client's own landmarks by site. */
export async function listLandmarks(db: Queryable, clientId: string): Promise<Record<string, string>> {
  const rows = await db.select().from(landmarkNote).where(eq(landmarkNote.clientId, clientId))
  return Object.fromEntries(rows.map(({ site, note }) => [site, note]))
}

/** Writes a landmark down, replaces it, or with an empty note takes it away. */
export async function setLandmark(tx: Transaction, clientId: string, site: string, note: string): Promise<void> {
  if (note === '') {
    await tx.delete(landmarkNote).where(and(eq(landmarkNote.clientId, clientId), eq(landmarkNote.site, site)))
    return
  }
  await tx
    .insert(landmarkNote)
    .values({ clientId, site, note })
    .onConflictDoUpdate({
      target: [landmarkNote.clientId, landmarkNote.site],
      set: { note, changedAt: new Date().toISOString() },
    })
}
