import { and, asc, eq, isNull } from 'drizzle-orm'
import type { Alignment, Photo } from '../../shared/schemas/photo'
import type { Database, Queryable } from '../db/database'
import { checkin, client, photo } from '../db/schema'
import type { SignedIn } from './staff'
import { touchByCheckin } from './touch'

const columns = {
  id: photo.id,
  checkinId: photo.checkinId,
  pose: photo.pose,
  width: photo.width,
  height: photo.height,
  takenAt: photo.takenAt,
  conditions: photo.conditions,
  alignment: photo.alignment,
}

/** A client's photographs, oldest first; those taken away are not among them. */
export async function listPhotos(db: Queryable, clientId: string): Promise<Photo[]> {
  return db
    .select(columns)
    .from(photo)
    .innerJoin(checkin, eq(checkin.id, photo.checkinId))
    .where(and(eq(checkin.clientId, clientId), isNull(photo.removedAt)))
    .orderBy(asc(photo.takenAt), asc(photo.id))
}

/** One photograph of this studio, or null. */
export async function findPhoto(db: Queryable, who: SignedIn, id: string): Promise<Photo | null> {
  const rows = await db
    .select(columns)
    .from(photo)
    .innerJoin(checkin, eq(checkin.id, photo.checkinId))
    .innerJoin(client, eq(client.id, checkin.clientId))
    .where(and(eq(photo.id, id), eq(client.studioId, who.studioId), isNull(photo.removedAt)))
  return rows[0] ?? null
}

/**
 * Adds a photograph under an id made by the device; `keep` stores its bytes. An id that is taken, here or elsewhere, is
 * left alone with its bytes; a photograph whose bytes cannot be stored is not added.
 */
export async function addPhoto(
  db: Database,
  who: SignedIn,
  facts: Omit<typeof photo.$inferInsert, 'takenBy' | 'alignment' | 'removedAt'>,
  keep: () => Promise<void>,
): Promise<void> {
  await db.transaction(async (tx) => {
    const added = await tx
      .insert(photo)
      .values({ ...facts, takenBy: who.staffId })
      .onConflictDoNothing({ target: photo.id })
      .returning({ id: photo.id })
    if (added.length === 0) return
    await touchByCheckin(tx, facts.checkinId)
    await keep()
  })
}

export async function alignPhoto(db: Queryable, id: string, alignment: Alignment): Promise<void> {
  await db.update(photo).set({ alignment }).where(eq(photo.id, id))
}

/** Notes that a photograph was taken away. */
export async function removePhoto(db: Queryable, id: string): Promise<void> {
  await db.update(photo).set({ removedAt: new Date().toISOString() }).where(eq(photo.id, id))
}
