import { and, asc, count, desc, eq, inArray, isNotNull, isNull, lt, sql } from 'drizzle-orm'
import type { AnyColumn } from 'drizzle-orm'
import { OWN_POLICIES, type Strike } from '../../core/readings'
import type { SiteId } from '../../core/sites'
import type { CheckinRecord, SkipFact, VoidedCheckin } from '../../shared/schemas/checkin'
import type { Queryable, Transaction } from '../db/database'
import { storeOnce } from '../write/same-again'
import { checkin, client, photo, reading, remark, skip, staff, strike, study, studyTurn } from '../db/schema'
import { readingLines, readReadingLines } from './reading-lines'
import { seenBy } from './seen-by'
import type { InStudio, SignedIn } from './staff'
import { isVisit } from './visits'

const head = {
  id: checkin.id,
  clientId: checkin.clientId,
  protocolId: checkin.protocolId,
  side: checkin.side,
  assessorId: checkin.assessorId,
  recorderId: checkin.recorderId,
  recorder: sql<string | null>`(select recorder.name from staff recorder where recorder.id = ${checkin.recorderId})`,
  caliperId: checkin.caliperId,
  conditions: checkin.conditions,
  policies: checkin.policies,
  withHeight: checkin.withHeight,
  startedAt: checkin.startedAt,
  day: checkin.day,
  finishedAt: checkin.finishedAt,
  startedBy: staff.name,
  note: checkin.note,
  studyId: checkin.studyId,
  studySites: sql<SiteId[] | null>`(select ${study.sites} from ${study} where ${study.id} = ${checkin.studyId})`,
  keptWords: checkin.keptWords,
}

/** What a check-in is, without its facts: enough for whoever adds to it. */
export type CheckinHead = Omit<CheckinRecord, 'readings' | 'strikes' | 'skips' | 'remarks'>

function ofClient(who: InStudio, clientId: string) {
  return and(eq(client.studioId, who.studioId), eq(checkin.clientId, clientId), isVisit)
}

function grouped<Fact extends { checkinId: string }>(facts: readonly Fact[]): Map<string, Fact[]> {
  const groups = new Map<string, Fact[]>()
  for (const fact of facts) {
    const own = groups.get(fact.checkinId)
    if (own) own.push(fact)
    else groups.set(fact.checkinId, [fact])
  }
  return groups
}

/** One of these ids, sent as one value: hundreds of values are slow to send. */
function among(column: AnyColumn, ids: readonly string[]) {
  return sql`${column} = any(${`{${ids.join(',')}}`}::uuid[])`
}

async function withFacts(db: Queryable, rows: CheckinHead[]): Promise<CheckinRecord[]> {
  if (rows.length === 0) return []
  const ids = rows.map((row) => row.id)
  const facts = await db
    .select({ checkinId: reading.checkinId, readings: readingLines })
    .from(reading)
    .leftJoin(strike, eq(strike.readingId, reading.id))
    .where(among(reading.checkinId, ids))
    .groupBy(reading.checkinId)
  const byCheckin = new Map(facts.map(({ checkinId, readings }) => [checkinId, readReadingLines(readings)]))
  const { skips, remarks } = await sideFacts(db, ids)
  return rows.map((row) => {
    const own = byCheckin.get(row.id) ?? []
    return {
      ...row,
      skips: (skips.get(row.id) ?? []).map(({ checkinId: _, ...fact }) => fact as SkipFact),
      remarks: (remarks.get(row.id) ?? []).map(({ checkinId: _, ...fact }) => fact),
      readings: own.map(({ struckAt: _, ...fact }) => fact),
      strikes: own.flatMap(({ id, struckAt }): Strike[] => (struckAt ? [{ readingId: id, struckAt }] : [])),
    }
  })
}

/** Skips and notes of these check-ins: few, so they are read beside the readings. */
async function sideFacts(db: Queryable, checkinIds: string[]) {
  const skips = await db
    .select({
      checkinId: skip.checkinId,
      id: skip.id,
      site: skip.site,
      reason: skip.reason,
      words: skip.words,
      at: skip.at,
    })
    .from(skip)
    .where(among(skip.checkinId, checkinIds))
    .orderBy(asc(skip.at))
  const remarks = await db
    .select({
      checkinId: reading.checkinId,
      id: remark.id,
      readingId: remark.readingId,
      words: remark.words,
      at: remark.at,
    })
    .from(remark)
    .innerJoin(reading, eq(reading.id, remark.readingId))
    .where(among(reading.checkinId, checkinIds))
    .orderBy(asc(remark.at))
  return { skips: grouped(skips), remarks: grouped(remarks) }
}

function select(db: Queryable) {
  return db
    .select(head)
    .from(checkin)
    .innerJoin(client, eq(client.id, checkin.clientId))
    .innerJoin(staff, eq(staff.id, checkin.startedBy))
    .$dynamic()
}

const one = (who: InStudio, id: string) => and(eq(checkin.id, id), eq(client.studioId, who.studioId), seenBy(who))

/** One check-in of this studio with its facts, or null. */
export async function findCheckin(db: Queryable, who: InStudio, id: string): Promise<CheckinRecord | null> {
  return (await withFacts(db, await select(db).where(one(who, id))))[0] ?? null
}

/** One check-in of this studio without its facts, or null: one question instead of four. */
export async function findCheckinHead(db: Queryable, who: InStudio, id: string): Promise<CheckinHead | null> {
  return (await select(db).where(one(who, id)))[0] ?? null
}

/** These check-ins of this studio with their facts, oldest first. */
export async function findCheckins(db: Queryable, who: InStudio, ids: readonly string[]): Promise<CheckinRecord[]> {
  if (ids.length === 0) return []
  const rows = await select(db)
    .where(and(inArray(checkin.id, [...ids]), eq(client.studioId, who.studioId)))
    .orderBy(asc(checkin.startedAt))
  return withFacts(db, rows)
}

/** Every check-in of a client with its facts, oldest first. */
export async function listCheckins(db: Queryable, who: InStudio, clientId: string): Promise<CheckinRecord[]> {
  const rows = await select(db).where(ofClient(who, clientId)).orderBy(asc(checkin.startedAt))
  return withFacts(db, rows)
}

/** The finished check-in before this moment, or null: what "last time" means. */
export async function findLastFinished(
  db: Queryable,
  who: SignedIn,
  clientId: string,
  before: string,
): Promise<CheckinRecord | null> {
  const rows = await select(db)
    .where(and(ofClient(who, clientId), lt(checkin.startedAt, before), isNotNull(checkin.finishedAt)))
    .orderBy(desc(checkin.startedAt))
    .limit(1)
  return (await withFacts(db, rows))[0] ?? null
}

/** What a check-in starts with. */
type Start = Pick<
  typeof checkin.$inferInsert,
  | 'id'
  | 'clientId'
  | 'protocolId'
  | 'side'
  | 'startedAt'
  | 'day'
  | 'assessorId'
  | 'recorderId'
  | 'caliperId'
  | 'conditions'
  | 'policies'
  | 'withHeight'
  | 'studyId'
>

/**
 * Starts a check-in, or gives the one already open for this client: two starts at once meet in one session.
 * @throws IdTaken when the id is another check-in's
 */
export async function startCheckin(
  tx: Transaction,
  who: SignedIn,
  start: Start,
): Promise<{ id: string; added: boolean }> {
  const row = { ...start, assessorId: start.assessorId ?? who.staffId, startedBy: who.staffId }
  const [known] = await tx.select({ id: checkin.id }).from(checkin).where(eq(checkin.id, start.id))
  const open = known ? null : await findOpen(tx, start.clientId)
  if (open) return { id: open, added: false }
  const fact = ['clientId', 'protocolId', 'startedAt', 'assessorId', 'recorderId', 'caliperId', 'conditions'] as const
  return { id: start.id, added: (await storeOnce(tx, checkin, checkin.id, [row], fact)) > 0 }
}

/** Starts a turn of a study: it stands beside whatever else is under way for the client. Throws IdTaken. */
export function startTurn(tx: Transaction, who: SignedIn, start: Start): Promise<number> {
  return storeOnce(
    tx,
    checkin,
    checkin.id,
    [{ ...start, startedBy: who.staffId }],
    ['clientId', 'protocolId', 'startedAt', 'assessorId', 'caliperId', 'studyId'],
  )
}

/** The check-in under way for this client, or null. */
export async function findOpen(db: Queryable, clientId: string): Promise<string | null> {
  const rows = await db
    .select({ id: checkin.id })
    .from(checkin)
    .where(and(eq(checkin.clientId, clientId), isNull(checkin.finishedAt), isNull(checkin.studyId)))
  return rows[0]?.id ?? null
}

/** Writes at a check-in: only what is named changes. */
export async function annotateCheckin(
  tx: Transaction,
  id: string,
  change: Partial<Pick<typeof checkin.$inferInsert, 'note' | 'keptWords'>>,
): Promise<void> {
  await tx.update(checkin).set(change).where(eq(checkin.id, id))
}

/** Calls somebody to write in an open check-in; null: nobody else. @returns false when it is finished */
export async function callRecorder(tx: Transaction, id: string, recorderId: string | null): Promise<boolean> {
  const rows = await tx
    .update(checkin)
    .set({ recorderId })
    .where(and(eq(checkin.id, id), isNull(checkin.finishedAt)))
    .returning({ id: checkin.id })
  return rows.length > 0
}

/** Voids a check-in: it counts for nothing any more, its facts stay. One voided already stays as it was. */
export async function voidCheckin(tx: Transaction, who: SignedIn, id: string, reason: string): Promise<void> {
  const now = new Date().toISOString()
  await tx
    .update(checkin)
    .set({
      voidedAt: now,
      voidReason: reason,
      voidedBy: who.staffId,
      // Another session can be opened.
      finishedAt: sql`coalesce(${checkin.finishedAt}, greatest(${now}::timestamptz, ${checkin.startedAt}))`,
    })
    .where(and(eq(checkin.id, id), isNull(checkin.voidedAt)))
}

/** Check-ins of a client that were voided, the newest first. */
export async function listVoided(db: Queryable, who: InStudio, clientId: string): Promise<VoidedCheckin[]> {
  const rows = await db
    .select({ id: checkin.id, day: checkin.day, reason: checkin.voidReason, at: checkin.voidedAt, by: staff.name })
    .from(checkin)
    .innerJoin(client, eq(client.id, checkin.clientId))
    .innerJoin(staff, eq(staff.id, checkin.voidedBy))
    .where(
      and(
        eq(client.studioId, who.studioId),
        eq(checkin.clientId, clientId),
        isNotNull(checkin.voidedAt),
        isNull(checkin.studyId),
      ),
    )
    .orderBy(desc(checkin.startedAt))
  return rows.map(({ reason, at, ...row }) => ({ ...row, reason: reason ?? '', at: at ?? '' }))
}

/** Goes over to another set of sites, read its own way. False when the check-in is finished. */
export async function changeSet(tx: Transaction, id: string, protocolId: string): Promise<boolean> {
  const changed = await tx
    .update(checkin)
    .set({ protocolId, policies: OWN_POLICIES })
    .where(and(eq(checkin.id, id), isNull(checkin.finishedAt)))
    .returning({ id: checkin.id })
  return changed.length > 0
}

/** Finishes a check-in; one that is finished stays as it is. False when there is nothing in it to finish. */
export async function finishCheckin(tx: Transaction, id: string, now: string): Promise<boolean> {
  const [held] = await tx.select({ readings: count() }).from(reading).where(eq(reading.checkinId, id))
  if ((held?.readings ?? 0) === 0) return false
  await tx
    .update(checkin)
    .set({ finishedAt: sql`greatest(${now}::timestamptz, ${checkin.startedAt})` })
    .where(and(eq(checkin.id, id), isNull(checkin.finishedAt)))
  return true
}

/** Removes a check-in that holds neither readings nor photographs: a session started by mistake. False when it does. */
export async function discardEmptyCheckin(tx: Transaction, id: string): Promise<boolean> {
  const [held] = await tx.select({ readings: count() }).from(reading).where(eq(reading.checkinId, id))
  const [seen] = await tx.select({ photos: count() }).from(photo).where(eq(photo.checkinId, id))
  if ((held?.readings ?? 0) > 0 || (seen?.photos ?? 0) > 0) return false
  // A site left out of a session nobody measured in says nothing.
  await tx.delete(skip).where(eq(skip.checkinId, id))
  await tx.delete(studyTurn).where(eq(studyTurn.checkinId, id))
  await tx.delete(checkin).where(eq(checkin.id, id))
  return true
}

/** The day of a client's newest finished check-in; null without one. */
export async function latestFinishedDay(db: Queryable, clientId: string): Promise<string | null> {
  const [row] = await db
    .select({ day: checkin.day })
    .from(checkin)
    .where(and(eq(checkin.clientId, clientId), isNotNull(checkin.finishedAt), isVisit))
    .orderBy(desc(checkin.startedAt))
    .limit(1)
  return row?.day ?? null
}
