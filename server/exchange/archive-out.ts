import type { Writable } from 'node:stream'
import { asc, count, isNull, sql, type SQL } from 'drizzle-orm'
import { ARCHIVE_FORMAT, MANIFEST, photoPath, tablePath, type ArchiveManifest } from '../../exchange/archive/manifest'
import { linesOf } from '../../exchange/archive/lines'
import { zipTo } from '../../exchange/archive/zip-out'
import { migrationsCount, type Queryable } from '../db/database'
import { homePhoto, photo, studio } from '../db/schema'
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

/**
 * Writes the whole studio as an archive. Tables are read from those that name others to those that are named, so that
 * what is added meanwhile cannot leave a row without the one it names; nothing is held in memory whole. The same facts
 * give the same bytes.
 *
 * @param target where the bytes go; closed at the end
 * @returns what was written, and ids of photographs whose bytes were not there
 */
export async function writeArchive(
  db: Queryable,
  photos: Pick<PhotoStore, 'get'>,
  target: Writable,
  { tell, stopped }: Progress,
): Promise<{ manifest: ArchiveManifest; missing: string[] }> {
  const [own] = await db.select({ id: studio.id, name: studio.name }).from(studio)
  if (!own) throw new Error('There is no studio to write an archive of.')
  const zip = zipTo(target)
  const total = await countAll(db)
  let done = 0
  const parts = new Map<string, ArchiveManifest['tables'][number]>()
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
  const ids = await photoIds(db)
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
  return { manifest, missing }
}
