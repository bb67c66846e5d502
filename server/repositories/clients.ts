import { and, asc, count, eq, isNotNull, isNull, max, sql } from 'drizzle-orm'
import type { Client, ClientInput, ClientPage } from '../../shared/schemas/client'
import type { Queryable } from '../db/database'
import { checkin, client } from '../db/schema'
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
  archivedAt: client.archivedAt,
}

function toClient({ archivedAt, ...row }: Omit<Client, 'archived'> & { archivedAt: string | null }): Client {
  return { ...row, archived: archivedAt !== null }
}

function ownClient(who: SignedIn, id: string) {
  return and(eq(client.id, id), eq(client.studioId, who.studioId))
}

/** One client of this studio, or null. */
export async function findClient(db: Queryable, who: SignedIn, id: string): Promise<Client | null> {
  const rows = await db.select(columns).from(client).where(ownClient(who, id))
  return rows[0] ? toClient(rows[0]) : null
}

/** Adds a client under an id made by the device; sending it twice adds one. Null when the id is another studio's. */
export async function addClient(
  db: Queryable,
  who: SignedIn,
  { id, ...input }: ClientInput & { id: string },
): Promise<Client | null> {
  await db
    .insert(client)
    .values({ id, studioId: who.studioId, ...input })
    .onConflictDoNothing({ target: client.id })
  return findClient(db, who, id)
}

export async function changeClient(
  db: Queryable,
  who: SignedIn,
  id: string,
  change: ClientInput | { archived: boolean },
): Promise<Client | null> {
  const values =
    'archived' in change ? { archivedAt: change.archived ? new Date().toISOString() : null } : { ...change }
  const rows = await db.update(client).set(values).where(ownClient(who, id)).returning(columns)
  return rows[0] ? toClient(rows[0]) : null
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
