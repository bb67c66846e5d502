import { createHash } from 'node:crypto'
import { and, eq, getTableName, isNull, sql, type SQL } from 'drizzle-orm'
import { getTableConfig } from 'drizzle-orm/pg-core'
import type { Writable } from 'node:stream'
import { linesOf } from '../../exchange/archive/lines'
import { zipTo } from '../../exchange/archive/zip-out'
import type { Queryable, Transaction } from '../db/database'
import { client, homePhoto, mail, photo } from '../db/schema'
import type { PhotoStore } from '../ports/photo-store'
import { rowsOf } from './archive-out'
import { archivedTables, type ArchivedTable } from './tables'
import type { Progress } from './progress'

/** What opens something and is nobody's fact. */
const SECRETS = /hash|token/

/** Tables whose rows speak of everybody: a client's own row in them is by its column alone. */
const clientColumn = (table: ArchivedTable) => table.columns.find(({ name }) => name === 'client_id')

/** The column by which a table's rows belong to another table's, nearest to the client. */
function parentOf(table: ArchivedTable, reached: ReadonlySet<string>): { column: SQL; parent: string } | null {
  for (const { reference } of getTableConfig(table.table).foreignKeys) {
    const { columns, foreignTable } = reference()
    const parent = getTableName(foreignTable)
    const [column] = columns
    if (column && parent !== 'client' && reached.has(parent)) return { column: sql`${column}`, parent }
  }
  return null
}

/**
 * Which rows of each table are about one client, in the order of the archive: their own, and whatever hangs on those.
 * Tables that hold nothing of theirs are not there.
 */
export function rowsAbout(clientId: string): Map<string, SQL> {
  const about = new Map<string, SQL>([['client', sql`${client.id} = ${clientId}`]])
  for (const table of archivedTables()) {
    if (about.has(table.name) || table.name === 'audit') continue
    const own = clientColumn(table)
    const hanging = own ? null : parentOf(table, new Set(about.keys()))
    if (own) about.set(table.name, sql`${own} = ${clientId}`)
    else if (hanging) {
      const key = archivedTables().find(({ name }) => name === hanging.parent)?.key[0]
      const parent = about.get(hanging.parent)
      if (key && parent)
        about.set(
          table.name,
          sql`${hanging.column} in (select ${key} from ${sql.identifier(hanging.parent)} where ${parent})`,
        )
    }
  }
  return about
}

/** Ids of a client's photographs whose bytes are kept. */
export async function photosAbout(db: Queryable, clientId: string): Promise<string[]> {
  const about = rowsAbout(clientId)
  const taken = await db
    .select({ id: photo.id })
    .from(photo)
    .where(and(about.get('photo'), isNull(photo.removedAt)))
  const home = await db
    .select({ id: homePhoto.id })
    .from(homePhoto)
    .where(and(about.get('home_photo'), isNull(homePhoto.removedAt)))
  return [...taken, ...home].map(({ id }) => id).sort()
}

/** A page of paper that goes into a client's own file. */
export interface Enclosed {
  name: string
  bytes: Buffer
}

/** Writes a ZIP of what is enclosed and nothing else. */
export async function writeEnclosed(target: Writable, enclosed: readonly Enclosed[]): Promise<void> {
  const zip = zipTo(target)
  for (const { name, bytes } of enclosed) await zip.add(name, [bytes])
  await zip.end()
}

/**
 * Writes everything about one client as a ZIP of their own: rows by table as the archive has them but for what opens
 * something, photographs, and what is enclosed (pages, tables).
 */
export async function writeOwnFile(
  db: Queryable,
  photos: Pick<PhotoStore, 'get'>,
  target: Writable,
  clientId: string,
  enclosed: readonly Enclosed[],
  { tell, stopped }: Progress,
): Promise<void> {
  const zip = zipTo(target)
  const parts: { part: string; rows?: number; sha256: string }[] = []
  for (const { name, bytes } of enclosed) {
    const { sha256 } = await zip.add(name, [bytes])
    parts.push({ part: name, sha256 })
  }
  const about = rowsAbout(clientId)
  let done = 0
  for (const table of archivedTables()) {
    const filter = about.get(table.name)
    if (!filter) continue
    stopped()
    let rows = 0
    const bare = { ...table, columns: table.columns.filter(({ name }) => !SECRETS.test(name)) }
    async function* pages() {
      for await (const page of rowsOf(db, bare, filter)) {
        rows += page.length
        yield page
      }
    }
    const part = `tables/${table.name}.jsonl`
    const { sha256 } = await zip.add(part, linesOf(pages()))
    parts.push({ part, rows, sha256 })
    done += 1
    tell({ done, total: about.size, of: 'tables' })
  }
  for (const id of await photosAbout(db, clientId)) {
    const bytes = await photos.get(id)
    if (!bytes) continue
    await zip.add(`photos/${id}.jpg`, [bytes], false)
    parts.push({ part: `photos/${id}.jpg`, sha256: createHash('sha256').update(bytes).digest('hex') })
  }
  await zip.add('contents.json', [Buffer.from(`${JSON.stringify({ parts }, null, 1)}\n`)])
  await zip.end()
}

/** What of an erased client lies outside the database. */
export interface ErasedTraces {
  /** Photographs whose bytes are to go. */
  photoIds: string[]
  /** Mails whose copies are to go. */
  mailIds: string[]
}

/** File names of imports that may say a client's name: of files they came with, and those with a word of their name. */
async function forgetFileNames(tx: Transaction, clientId: string, about: ReadonlyMap<string, SQL>): Promise<void> {
  const [own] = await tx.select({ name: client.name }).from(client).where(eq(client.id, clientId))
  const words = (own?.name ?? '').split(/[^\p{L}\p{N}]+/u).filter((word) => word.length > 2)
  const said = words.map((word) => sql`position(lower(${word}) in lower(file_name)) > 0`)
  const came = sql`id in (select import_id from imported_item where item_id = ${clientId} or item_id in (select id from checkin where ${about.get('checkin') ?? sql`false`}))`
  await tx.execute(sql`update data_import set file_name = 'name erased' where ${sql.join([came, ...said], sql` or `)}`)
}

/**
 * Erases a client: every row about them, in the order that leaves none without what it names. The audit log keeps ids
 * alone. To be called in the transaction of the door; what lies outside the database goes after it (server/jobs/erase.ts).
 */
export async function eraseClient(tx: Transaction, clientId: string): Promise<ErasedTraces> {
  const photoIds = await photosAbout(tx, clientId)
  const mails = await tx.select({ id: mail.id }).from(mail).where(eq(mail.clientId, clientId))
  const about = rowsAbout(clientId)
  await forgetFileNames(tx, clientId, about)
  const links = about.get('client_link')
  if (links)
    await tx.execute(sql`delete from link_session where link_id in (select id from client_link where ${links})`)
  for (const { name, columns } of archivedTables()) {
    const filter = about.get(name)
    if (filter && columns.some((column) => column.name === 'id'))
      await tx.execute(
        sql`delete from imported_item where item_id in (select id from ${sql.identifier(name)} where ${filter})`,
      )
  }
  for (const { name, table } of [...archivedTables()].reverse()) {
    const filter = about.get(name)
    if (filter) await tx.delete(table).where(filter)
  }
  return { photoIds, mailIds: mails.map(({ id }) => id) }
}
