import type { Writable } from 'node:stream'
import { asc, count, isNull, sql, type SQL } from 'drizzle-orm'
import { ARCHIVE_FORMAT, MANIFEST, photoPath, tablePath, type ArchiveManifest } from '../../exchange/archive/manifest'
import { linesOf } from '../../exchange/archive/lines'
import { zipTo, type ZipOut } from '../../exchange/archive/zip-out'
import { migrationsCount, type Queryable, type Store } from '../db/database'
import { deletedRows, homePhoto, photo, studio } from '../db/schema'
import { endSaid, recordEnd } from '../repositories/record-chain'
import type { PhotoStore } from '../ports/photo-store'
import type { Progress } from './progress'
import { archivedTables, type ArchivedTable } from './tables'

const PAGE = 2_000

/** Rows after this one, in the order of the key. */
function after({ key }: ArchivedTable, row: Record<string, unknown>): SQL {
  const columns = sql.join(key, sql`, `)
  const values = key.map((one) => sql`${row[one.name]}`)
  return sql`(${columns}) > (${sql.join(values, sql`, `)})`
}

/** Every row of a table, page by page, in the order of its key. */
export async function* rowsOf(
  db: Queryable,
  table: ArchivedTable,
  filter?: SQL,
): AsyncGenerator<Record<string, unknown>[]> {
  const columns = Object.fromEntries(table.columns.map((one) => [one.name, one]))
  let last: Record<string, unknown> | undefined
  do {
    const rest = last ? after(table, last) : undefined
    const where = filter && rest ? sql`${filter} and ${rest}` : (filter ?? rest)
    const page = await db
      .select(columns)
      .from(table.table)
      .where(where)
      .orderBy(...table.key.map((one) => asc(one)))
      .limit(PAGE)
    yield page
    last = page.length === PAGE ? page.at(-1) : undefined
  } while (last)
}

async function countAll(db: Queryable): Promise<number> {
  let all = 0
  for (const { table } of archivedTables()) all += (await db.select({ rows: count() }).from(table))[0]?.rows ?? 0
  return all
}

async function* counted(pages: AsyncIterable<Record<string, unknown>[]>, tell: (rows: number) => void) {
  for await (const page of pages) {
    tell(page.length)
    yield page
  }
}

async function photoIds(db: Queryable): Promise<string[]> {
  const taken = await db.select({ id: photo.id }).from(photo).where(isNull(photo.removedAt))
  const home = await db.select({ id: homePhoto.id }).from(homePhoto).where(isNull(homePhoto.removedAt))
  return [...taken, ...home].map(({ id }) => id).sort()
}

/** What of an archive comes from the database, all as of one moment. */
interface TablesWritten {
  studio: ArchiveManifest['studio']
  parts: Map<string, ArchiveManifest['tables'][number]>
  photoIds: string[]
  counts: DatabaseCounts
}

/** What is kept beside a backup, so that the next one can tell deleted rows from lost ones. */
export interface DatabaseCounts {
  /** Which database this is: counts of two databases say nothing about each other. */
  database: string
  /** Rows ever deleted, by table. */
  deleted: Record<string, number>
  /** The newest entry of the audit log and its hash. */
  record: string | null
}

async function countsOf(db: Queryable, studioId: string): Promise<DatabaseCounts> {
  const { rows } = await db.execute(
    sql`select c.system_identifier || '/' || d.oid as id from pg_control_system() c, pg_database d where d.datname = current_database()`,
  )
  const gone = await db.select().from(deletedRows)
  return {
    database: String(rows[0]?.id),
    deleted: Object.fromEntries(gone.map(({ tableName, rows: count }) => [tableName, count])),
    record: endSaid(await recordEnd(db, { studioId })),
  }
}

async function writeTables(db: Queryable, zip: ZipOut, { tell, stopped }: Progress): Promise<TablesWritten> {
  const [own] = await db.select({ id: studio.id, name: studio.name }).from(studio)
  if (!own) throw new Error('There is no studio to write an archive of.')
  const total = await countAll(db)
  let done = 0
  const parts: TablesWritten['parts'] = new Map()
  for (const table of [...archivedTables()].reverse()) {
    let rows = 0
    const pages = counted(rowsOf(db, table), (more) => {
      stopped()
      rows += more
      done += more
      tell({ done, total, of: 'rows' })
    })
    const { sha256 } = await zip.add(tablePath(table.name), linesOf(pages))
    parts.set(table.name, { table: table.name, rows, sha256 })
  }
  return { studio: own, parts, photoIds: await photoIds(db), counts: await countsOf(db, own.id) }
}

/**
 * Writes the whole studio as an archive: its rows as of one moment, then the photographs those rows name. Nothing is held
 * in memory whole, and the same facts give the same bytes.
 *
 * @param target where the bytes go; closed at the end
 * @returns what was written, and ids of photographs whose bytes were not there
 */
export async function writeArchive(
  store: Pick<Store, 'snapshot'>,
  photos: Pick<PhotoStore, 'get'>,
  target: Writable,
  progress: Progress,
): Promise<{ manifest: ArchiveManifest; missing: string[]; counts: DatabaseCounts }> {
  const { tell, stopped } = progress
  const zip = zipTo(target)
  const { studio: own, parts, photoIds: ids, counts } = await store.snapshot((db) => writeTables(db, zip, progress))
  const kept: ArchiveManifest['photos'] = []
  const missing: string[] = []
  for (const [i, id] of ids.entries()) {
    stopped()
    const bytes = await photos.get(id)
    if (bytes) kept.push({ id, ...(await zip.add(photoPath(id), [bytes], false)) })
    else missing.push(id)
    tell({ done: i + 1, total: ids.length, of: 'photographs' })
  }
  const manifest: ArchiveManifest = {
    format: ARCHIVE_FORMAT,
    schema: migrationsCount(),
    studio: own,
    tables: archivedTables().flatMap(({ name }) => parts.get(name) ?? []),
    photos: kept,
  }
  await zip.add(MANIFEST, [Buffer.from(`${JSON.stringify(manifest, null, 1)}\n`)])
  await zip.end()
  return { manifest, missing, counts }
}
