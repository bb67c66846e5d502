import { and, eq, inArray, isNull, notInArray, sql } from 'drizzle-orm'
import type { Flag } from '../../core/cautions'
import type { Client, ClientInput } from '../../shared/schemas/client'
import type { Queryable, Transaction } from '../db/database'
import { alike, IdTaken, storeOnce } from '../write/same-again'
import { cautionFlag, client } from '../db/schema'
import { seenBy } from './seen-by'
import type { InStudio, SignedIn } from './staff'

/** Columns of a client as the product knows them. */
export const clientColumns = {
  id: client.id,
  name: client.name,
  sex: client.sex,
  birthDate: client.birthDate,
  heightCm: client.heightCm,
  usualSide: client.usualSide,
  notes: client.notes,
  consentOn: client.consentOn,
  guardianConsent: client.guardianConsent,
  guardianName: client.guardianName,
  guardianConsentOn: client.guardianConsentOn,
  guardianPhotoConsentOn: client.guardianPhotoConsentOn,
  preparation: client.preparation,
  athlete: client.athlete,
  ancestry: client.ancestry,
  photoConsentOn: client.photoConsentOn,
  coachId: client.coachId,
  archivedAt: client.archivedAt,
  version: client.version,
}

type Row = Omit<Client, 'archived' | 'flags'> & { archivedAt: string | null }

async function withFlags(db: Queryable, { archivedAt, ...row }: Row): Promise<Client> {
  const flags = await db.select({ flag: cautionFlag.flag }).from(cautionFlag).where(eq(cautionFlag.clientId, row.id))
  return { ...row, flags: flags.map(({ flag }) => flag), archived: archivedAt !== null }
}

/** Makes a client's caution flags exactly these; flags that stay keep the day they were set. */
async function setFlags(tx: Transaction, clientId: string, flags: readonly Flag[]): Promise<void> {
  const old = and(
    eq(cautionFlag.clientId, clientId),
    flags.length > 0 ? notInArray(cautionFlag.flag, [...flags]) : undefined,
  )
  await tx.delete(cautionFlag).where(old)
  if (flags.length === 0) return
  await tx
    .insert(cautionFlag)
    .values(flags.map((flag) => ({ clientId, flag })))
    .onConflictDoNothing()
}

function ownClient(who: InStudio, id: string) {
  return and(eq(client.id, id), eq(client.studioId, who.studioId), seenBy(who))
}

/** One client of this studio, or null. */
export async function findClient(db: Queryable, who: InStudio, id: string): Promise<Client | null> {
  const rows = await db.select(clientColumns).from(client).where(ownClient(who, id))
  return rows[0] ? withFlags(db, rows[0]) : null
}

/** Clients of this studio, those of these ids or everybody who is not archived, with their flags: in two questions. */
export async function findClients(db: Queryable, who: InStudio, ids: readonly string[] | null): Promise<Client[]> {
  if (ids?.length === 0) return []
  const wanted = ids ? inArray(client.id, [...ids]) : isNull(client.archivedAt)
  const rows = await db
    .select(clientColumns)
    .from(client)
    .where(and(eq(client.studioId, who.studioId), seenBy(who), wanted))
    .orderBy(sql`lower(${client.name})`, client.id)
  const flags = await db
    .select({ clientId: cautionFlag.clientId, flag: cautionFlag.flag })
    .from(cautionFlag)
    .innerJoin(client, eq(client.id, cautionFlag.clientId))
    .where(and(eq(client.studioId, who.studioId), wanted))
  const byClient = new Map<string, Flag[]>()
  for (const { clientId, flag } of flags) byClient.set(clientId, [...(byClient.get(clientId) ?? []), flag])
  return rows.map(({ archivedAt, ...row }) => ({
    ...row,
    flags: byClient.get(row.id) ?? [],
    archived: archivedAt !== null,
  }))
}

/** A change made on an older record than the one stored. */
export class RecordChanged extends Error {
  constructor(readonly stored: Client) {
    super('Somebody has changed this record since it was opened here.')
  }
}

const FACT = [
  'studioId',
  'name',
  'sex',
  'birthDate',
  'heightCm',
  'usualSide',
  'notes',
  'consentOn',
  'guardianConsent',
  'guardianName',
  'guardianConsentOn',
  'guardianPhotoConsentOn',
  'preparation',
  'athlete',
  'ancestry',
  'photoConsentOn',
] as const

/**
 * Adds a client with their caution flags under an id made by the device; sending it twice adds one.
 * @throws IdTaken when another record stands under the id, in this studio or elsewhere
 */
export async function addClient(
  tx: Transaction,
  who: SignedIn,
  { id, flags, ...input }: ClientInput & { id: string },
): Promise<{ client: Client; added: boolean }> {
  // Where coaches see their own, who adds somebody is their coach.
  const coachId = who.sees === undefined ? null : who.staffId
  const row = { id, studioId: who.studioId, coachId, ...input }
  const added = await storeOnce(tx, client, client.id, [row], FACT)
  if (added > 0) await setFlags(tx, id, flags)
  const kept = await findClient(tx, who, id)
  if (!kept || !sameFlags(kept.flags, flags)) throw new IdTaken([id])
  return { client: kept, added: added > 0 }
}

function sameFlags(a: readonly Flag[], b: readonly Flag[]): boolean {
  return a.length === new Set(b).size && b.every((flag) => a.includes(flag))
}

/** Says whose client somebody is. */
export async function setCoach(tx: Transaction, id: string, coachId: string | null): Promise<void> {
  await tx.update(client).set({ coachId }).where(eq(client.id, id))
}

/** Archives a client or brings them back. */
export async function archiveClient(tx: Transaction, who: SignedIn, id: string, archived: boolean): Promise<void> {
  const archivedAt = archived ? new Date().toISOString() : null
  await tx
    .update(client)
    .set({ archivedAt, version: sql`${client.version} + 1` })
    .where(ownClient(who, id))
}

/**
 * Changes a client's record with its caution flags, on the version the change was made on.
 * @throws RecordChanged when the record has moved on since
 */
export async function changeClient(
  tx: Transaction,
  who: SignedIn,
  id: string,
  { version, flags, ...values }: ClientInput & { version: number },
): Promise<void> {
  const changed = await tx
    .update(client)
    .set({ ...values, version: version + 1 })
    .where(and(ownClient(who, id), eq(client.version, version)))
    .returning({ id: client.id })
  if (changed.length > 0) return setFlags(tx, id, flags)
  const stored = await findClient(tx, who, id)
  if (!stored) throw new Error('A client that was there is gone.')
  // The same change sent again, because its answer was lost.
  const again =
    FACT.every((key) => key === 'studioId' || alike(stored[key], values[key])) && sameFlags(stored.flags, flags)
  if (!again || stored.version !== version + 1) throw new RecordChanged(stored)
}
