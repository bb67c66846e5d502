import { and, asc, count, eq, isNotNull, isNull, max, notInArray, sql } from 'drizzle-orm'
import type { Flag } from '../../core/cautions'
import type { Client, ClientInput, ClientPage } from '../../shared/schemas/client'
import type { Queryable } from '../db/database'
import { cautionFlag, checkin, client } from '../db/schema'
import type { SignedIn } from './staff'

const PAGE = 100

const columns = {
  id: client.id,
  name: client.name,
  sex: client.sex,
  birthDate: client.birthDate,
  heightCm: client.heightCm,
  usualSide: client.usualSide,
  notes: client.notes,
  consentOn: client.consentOn,
  guardianConsent: client.guardianConsent,
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
  const rows = await db.select(columns).from(client).where(ownClient(who, id))
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
    await db.update(client).set({ archivedAt }).where(ownClient(who, id))
    return findClient(db, who, id)
  }
  const { flags, ...values } = change
  const rows = await db.update(client).set(values).where(ownClient(who, id)).returning({ id: client.id })
  if (rows.length > 0) await setFlags(db, id, flags)
  return findClient(db, who, id)
}

/** A cursor is the last line's sort key: the lower-case name and the id. */
function readCursor(after: string | undefined): { name: string; id: string } | null {
  const [, id, name] = /^([0-9a-f-]{36}) (.*)$/.exec(after ?? '') ?? []
  return id !== undefined && name !== undefined ? { id, name } : null
}

/** Text as a LIKE pattern that finds it anywhere, its own wildcards taken literally. */
function contains(text: string): string {
  return `%${text.toLowerCase().replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`
}

/** Clients by name, a page at a time. */
export async function listClients(
  db: Queryable,
  who: SignedIn,
  query: { q: string; archived: boolean; after?: string | undefined },
): Promise<ClientPage> {
  const cursor = readCursor(query.after)
  const sortName = sql<string>`lower(${client.name})`
  const rows = await db
    .select({
      id: client.id,
      name: client.name,
      sortName,
      birthDate: client.birthDate,
      archivedAt: client.archivedAt,
      lastCheckinAt: max(checkin.startedAt),
      checkins: count(checkin.id),
      openCheckinId: sql<string | null>`min(case when ${checkin.finishedAt} is null then ${checkin.id}::text end)`,
    })
    .from(client)
    .leftJoin(checkin, eq(checkin.clientId, client.id))
    .where(
      and(
        eq(client.studioId, who.studioId),
        query.archived ? isNotNull(client.archivedAt) : isNull(client.archivedAt),
        query.q.trim() === '' ? undefined : sql`lower(${client.name}) like ${contains(query.q.trim())}`,
        cursor ? sql`(lower(${client.name}), ${client.id}) > (${cursor.name}, ${cursor.id}::uuid)` : undefined,
      ),
    )
    .groupBy(client.id)
    .orderBy(asc(sortName), asc(client.id))
    .limit(PAGE + 1)
  const page = rows.slice(0, PAGE)
  const last = page.at(-1)
  return {
    clients: page.map(({ archivedAt, sortName: _, ...line }) => ({ ...line, archived: archivedAt !== null })),
    next: rows.length > PAGE && last ? `${last.id} ${last.sortName}` : null,
  }
}
