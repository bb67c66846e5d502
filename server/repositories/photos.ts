import { and, asc, eq, isNotNull, isNull } from 'drizzle-orm'
import type { Alignment, Photo } from '../../shared/schemas/photo'
import type { Queryable, Transaction } from '../db/database'
import { storeOnce } from '../write/same-again'
import { checkin, client, photo } from '../db/schema'
import { seenBy } from './seen-by'
import type { SignedIn } from './staff'
import { isVisit } from './visits'

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

/** A photograph that may be shown: not taken away, and its client still agrees to being photographed. */
const shown = and(isNull(photo.removedAt), isNotNull(client.photoConsentOn), isVisit)

/** A client's photographs, oldest first: those that may be shown. */
export async function listPhotos(db: Queryable, clientId: string): Promise<Photo[]> {
  return db
    .select(columns)
    .from(photo)
    .innerJoin(checkin, eq(checkin.id, photo.checkinId))
    .innerJoin(client, eq(client.id, checkin.clientId))
    .where(and(eq(checkin.clientId, clientId), shown))
    .orderBy(asc(photo.takenAt), asc(photo.id))
}

/** One photograph of this studio that may be shown, with whose it is, or null. */
export async function findPhoto(
  db: Queryable,
  who: SignedIn,
  id: string,
): Promise<(Photo & { clientId: string }) | null> {
  const rows = await db
    .select({ ...columns, clientId: checkin.clientId })
    .from(photo)
    .innerJoin(checkin, eq(checkin.id, photo.checkinId))
    .innerJoin(client, eq(client.id, checkin.clientId))
    .where(and(eq(photo.id, id), eq(client.studioId, who.studioId), seenBy(who), shown))
  return rows[0] ?? null
}

/**
 * Adds a photograph under an id made by the device, once its bytes are kept; sending it twice adds one.
 * @throws IdTaken
 */
export function addPhoto(
  tx: Transaction,
  who: SignedIn,
  facts: Omit<typeof photo.$inferInsert, 'takenBy' | 'alignment' | 'removedAt'>,
): Promise<number> {
  const row = { ...facts, takenBy: who.staffId }
  return storeOnce(tx, photo, photo.id, [row], ['checkinId', 'pose', 'takenAt', 'digest'])
}

export async function alignPhoto(tx: Transaction, id: string, alignment: Alignment): Promise<void> {
  await tx.update(photo).set({ alignment }).where(eq(photo.id, id))
}

/** Notes that a photograph was taken away. */
export async function removePhoto(tx: Transaction, id: string): Promise<void> {
  await tx.update(photo).set({ removedAt: new Date().toISOString() }).where(eq(photo.id, id))
}

/** Whether a photograph with this id was ever kept, here or in another studio, shown or not. */
export async function photoIdKnown(db: Queryable, id: string): Promise<boolean> {
  return (await db.select({ id: photo.id }).from(photo).where(eq(photo.id, id))).length > 0
}

/** Ids of every photograph whose bytes belong in the store. */
export async function keptPhotoIds(db: Queryable): Promise<Set<string>> {
  const rows = await db.select({ id: photo.id }).from(photo).where(isNull(photo.removedAt))
  return new Set(rows.map(({ id }) => id))
}
