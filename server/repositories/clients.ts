import { and, eq, notInArray } from 'drizzle-orm'
import type { Flag } from '../../core/cautions'
import type { Client, ClientInput } from '../../shared/schemas/client'
import type { Queryable } from '../db/database'
import { cautionFlag, client } from '../db/schema'
import type { SignedIn } from './staff'

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
  athlete: client.athlete,
  ancestry: client.ancestry,
  photoConsentOn: client.photoConsentOn,
  archivedAt: client.archivedAt,
}

type Row = Omit<Client, 'archived' | 'flags'> & { archivedAt: string | null }

async function withFlags(db: Queryable, { archivedAt, ...row }: Row): Promise<Client> {
  const flags = await db.select({ flag: cautionFlag.flag }).from(cautionFlag).where(eq(cautionFlag.clientId, row.id))
  return { ...row, flags: flags.map(({ flag }) => flag), archived: archivedAt !== null }
}

/** Makes a client's caution flags exactly these; flags that stay keep the day they were set. */
async function setFlags(db: Queryable, clientId: string, flags: readonly Flag[]): Promise<void> {
  const old = and(
    eq(cautionFlag.clientId, clientId),
    flags.length > 0 ? notInArray(cautionFlag.flag, [...flags]) : undefined,
  )
  await db.delete(cautionFlag).where(old)
  if (flags.length === 0) return
  await db
    .insert(cautionFlag)
    .values(flags.map((flag) => ({ clientId, flag })))
    .onConflictDoNothing()
}

function ownClient(who: SignedIn, id: string) {
  return and(eq(client.id, id), eq(client.studioId, who.studioId))
}

/** One client of this studio, or null. */
export async function findClient(db: Queryable, who: SignedIn, id: string): Promise<Client | null> {
  const rows = await db.select(clientColumns).from(client).where(ownClient(who, id))
  return rows[0] ? withFlags(db, rows[0]) : null
}

/** Adds a client under an id made by the device; sending it twice adds one. Null when the id is another studio's. */
export async function addClient(
  db: Queryable,
  who: SignedIn,
  { id, flags, ...input }: ClientInput & { id: string },
): Promise<Client | null> {
  const added = await db
    .insert(client)
    .values({ id, studioId: who.studioId, ...input })
    .onConflictDoNothing({ target: client.id })
    .returning({ id: client.id })
  if (added.length > 0) await setFlags(db, id, flags)
  return findClient(db, who, id)
}

export async function changeClient(
  db: Queryable,
  who: SignedIn,
  id: string,
  change: ClientInput | { archived: boolean },
): Promise<Client | null> {
  if ('archived' in change) {
    const archivedAt = change.archived ? new Date().toISOString() : null
    await db.update(client).set({ archivedAt, touchedAt: new Date().toISOString() }).where(ownClient(who, id))
    return findClient(db, who, id)
  }
  const { flags, ...values } = change
  const rows = await db
    .update(client)
    .set({ ...values, touchedAt: new Date().toISOString() })
    .where(ownClient(who, id))
    .returning({ id: client.id })
  if (rows.length > 0) await setFlags(db, id, flags)
  return findClient(db, who, id)
}
