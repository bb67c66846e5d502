import { and, asc, desc, eq, inArray, isNotNull, isNull, sql } from 'drizzle-orm'
import type { GirthSiteId } from '../../core/sites'
import type {
  HandInInput,
  HandInRecord,
  HomePhoto,
  HomeWeighIn,
  LineInput,
  LineRecord,
  WaitingHandIn,
} from '../../shared/schemas/link'
import type { Queryable, Transaction } from '../db/database'
import { client, coachLine, handIn, homeGirth, homePhoto, staff, weighIn } from '../db/schema'
import { storeOnce } from '../write/same-again'
import { seenBy } from './seen-by'
import type { InStudio, SignedIn } from './staff'

/** Weeks shown at once: half a year. */
const NEWEST = 26

/** Weeks nobody has looked at, the oldest first. */
export async function waitingHandIns(db: Queryable, who: InStudio): Promise<WaitingHandIn[]> {
  return db
    .select({
      id: handIn.id,
      clientId: client.id,
      clientName: client.name,
      day: handIn.day,
      receivedAt: handIn.receivedAt,
      photos: sql<number>`(select count(*)::int from ${homePhoto} where ${homePhoto.handInId} = ${handIn.id} and ${homePhoto.removedAt} is null)`,
      girths: sql<number>`(select count(distinct ${homeGirth.site})::int from ${homeGirth} where ${homeGirth.handInId} = ${handIn.id})`,
    })
    .from(handIn)
    .innerJoin(client, eq(client.id, handIn.clientId))
    .where(and(eq(client.studioId, who.studioId), seenBy(who), isNull(handIn.seenAt), isNull(client.archivedAt)))
    .orderBy(asc(handIn.receivedAt))
    .limit(60)
}

/** A client's weeks with their girths and the photographs that may be shown, the newest first. */
export async function listHandIns(db: Queryable, clientId: string): Promise<HandInRecord[]> {
  const weeks = await db
    .select({
      id: handIn.id,
      day: handIn.day,
      receivedAt: handIn.receivedAt,
      conditions: handIn.conditions,
      fit: handIn.fit,
      words: handIn.words,
      seenAt: handIn.seenAt,
    })
    .from(handIn)
    .where(eq(handIn.clientId, clientId))
    .orderBy(desc(handIn.day), desc(handIn.id))
    .limit(NEWEST)
  const ids = weeks.map(({ id }) => id)
  if (ids.length === 0) return []
  const girths = await db
    .select({
      handInId: homeGirth.handInId,
      site: sql<GirthSiteId>`${homeGirth.site}`,
      trial: homeGirth.trial,
      value: homeGirth.value,
      unit: homeGirth.unit,
    })
    .from(homeGirth)
    .where(inArray(homeGirth.handInId, ids))
    .orderBy(asc(homeGirth.trial))
  const photos = await db
    .select({ handInId: homePhoto.handInId, id: homePhoto.id, pose: homePhoto.pose, takenAt: homePhoto.takenAt })
    .from(homePhoto)
    .innerJoin(handIn, eq(handIn.id, homePhoto.handInId))
    .innerJoin(client, eq(client.id, handIn.clientId))
    .where(and(inArray(homePhoto.handInId, ids), isNull(homePhoto.removedAt), isNotNull(client.photoConsentOn)))
    .orderBy(asc(homePhoto.takenAt))
  const of = <Fact extends { handInId: string }>(facts: readonly Fact[], id: string) =>
    facts.filter((one) => one.handInId === id).map(({ handInId: _, ...fact }) => fact)
  return weeks.map((week) => ({ ...week, girths: of(girths, week.id), photos: of(photos, week.id) }))
}

/** Stores a week with its girths; sending it twice stores one. Throws IdTaken. */
export async function addHandIn(
  tx: Transaction,
  about: { clientId: string; linkId: string },
  { girths, ...week }: HandInInput,
): Promise<number> {
  const added = await storeOnce(
    tx,
    handIn,
    handIn.id,
    [{ ...week, ...about }],
    ['clientId', 'day', 'conditions', 'fit', 'words'],
  )
  const rows = girths.map((one) => ({ ...one, handInId: week.id }))
  await storeOnce(tx, homeGirth, homeGirth.id, rows, ['handInId', 'site', 'trial', 'value', 'unit'])
  return added
}

/** Whether a week is this client's. */
export async function isOwnHandIn(db: Queryable, clientId: string, id: string): Promise<boolean> {
  const rows = await db
    .select({ id: handIn.id })
    .from(handIn)
    .where(and(eq(handIn.id, id), eq(handIn.clientId, clientId)))
  return rows.length > 0
}

/** Notes that a coach has looked at a week. False when it was looked at before, or is not this client's. */
export async function markSeen(tx: Transaction, who: SignedIn, clientId: string, id: string): Promise<boolean> {
  const seen = await tx
    .update(handIn)
    .set({ seenAt: new Date().toISOString(), seenBy: who.staffId })
    .where(and(eq(handIn.id, id), eq(handIn.clientId, clientId), isNull(handIn.seenAt)))
    .returning({ id: handIn.id })
  return seen.length > 0
}

/** Stores a photograph of a week once its bytes are kept; sending it twice stores one. Throws IdTaken. */
export function addHomePhoto(tx: Transaction, row: typeof homePhoto.$inferInsert): Promise<number> {
  return storeOnce(tx, homePhoto, homePhoto.id, [row], ['handInId', 'pose', 'digest'])
}

/** Whether a photograph from home was ever kept under this id. */
export async function homePhotoKnown(db: Queryable, id: string): Promise<boolean> {
  return (await db.select({ id: homePhoto.id }).from(homePhoto).where(eq(homePhoto.id, id))).length > 0
}

/** One photograph from home that may be shown, with whose it is, or null. */
export async function findHomePhoto(
  db: Queryable,
  who: InStudio,
  id: string,
): Promise<(HomePhoto & { clientId: string }) | null> {
  const [row] = await db
    .select({ id: homePhoto.id, pose: homePhoto.pose, takenAt: homePhoto.takenAt, clientId: client.id })
    .from(homePhoto)
    .innerJoin(handIn, eq(handIn.id, homePhoto.handInId))
    .innerJoin(client, eq(client.id, handIn.clientId))
    .where(
      and(
        eq(homePhoto.id, id),
        eq(client.studioId, who.studioId),
        seenBy(who),
        isNull(homePhoto.removedAt),
        isNotNull(client.photoConsentOn),
      ),
    )
  return row ?? null
}

export async function removeHomePhoto(tx: Transaction, id: string): Promise<void> {
  await tx.update(homePhoto).set({ removedAt: new Date().toISOString() }).where(eq(homePhoto.id, id))
}

/** Ids of every photograph from home whose bytes belong in the store. */
export async function keptHomePhotoIds(db: Queryable): Promise<string[]> {
  const rows = await db.select({ id: homePhoto.id }).from(homePhoto).where(isNull(homePhoto.removedAt))
  return rows.map(({ id }) => id)
}

/** Coaches' lines to a client, the newest first. */
export async function listLines(db: Queryable, clientId: string): Promise<LineRecord[]> {
  return db
    .select({
      id: coachLine.id,
      handInId: coachLine.handInId,
      words: coachLine.words,
      at: coachLine.at,
      by: staff.name,
    })
    .from(coachLine)
    .innerJoin(staff, eq(staff.id, coachLine.writtenBy))
    .where(eq(coachLine.clientId, clientId))
    .orderBy(desc(coachLine.at), desc(coachLine.id))
    .limit(NEWEST)
}

/** Stores a line; sending it twice stores one. Throws IdTaken. */
export function addLine(tx: Transaction, who: SignedIn, clientId: string, line: LineInput): Promise<number> {
  const row = { ...line, clientId, writtenBy: who.staffId }
  return storeOnce(tx, coachLine, coachLine.id, [row], ['clientId', 'handInId', 'words'])
}

/**
 * Stores this morning's weight. The first of a day counts; a further one is kept beside it. Throws IdTaken.
 * @returns whether it is new, and whether it counts
 */
export async function addHomeWeighIn(
  tx: Transaction,
  clientId: string,
  input: HomeWeighIn,
): Promise<{ added: boolean; counts: boolean }> {
  const [known] = await tx.select().from(weighIn).where(eq(weighIn.id, input.id))
  const [first] = await tx
    .select({ id: weighIn.id })
    .from(weighIn)
    .where(and(eq(weighIn.clientId, clientId), eq(weighIn.day, input.day), isNull(weighIn.struckAt)))
  const further = known ? known.further : first !== undefined
  const row = {
    ...input,
    clientId,
    source: 'link' as const,
    further,
    struckAt: further ? new Date().toISOString() : null,
  }
  const added = await storeOnce(tx, weighIn, weighIn.id, [row], ['clientId', 'day', 'value', 'unit', 'source'])
  return { added: added > 0, counts: !further }
}
