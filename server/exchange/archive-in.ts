import { SPLIT_SINCE, splitOldSites } from './old-sites'
import { eq, getTableColumns, inArray } from 'drizzle-orm'
import { ArchiveRefused } from '../../exchange/archive/manifest'
import type { Queryable, Transaction } from '../db/database'
import { audit, studio } from '../db/schema'
import type { PhotoStore } from '../ports/photo-store'
import { chainComesAlong, chainLoose, checkRecord } from '../repositories/record-chain'
import type { SignedIn } from '../repositories/staff'
import { Merge, MERGED, type MergedBy } from './archive-merge'
import { photoIn, rowsIn, type OpenArchive, type Row } from './archive-read'
import type { Progress } from './progress'
import { archivedTables, type ArchivedTable } from './tables'

/** How the rows of an archive stand to what is here. */
export interface Standing {
  table: string
  fresh: number
  same: number
  conflict: number
}

const keyOf = ({ key }: ArchivedTable, row: Row) => key.map((one) => String(row[one.name])).join(' ')

/** JSON with its keys in order, so that two rows can be held against each other. */
function canonical(value: unknown): string {
  return JSON.stringify(value, (_, inner: unknown) =>
    inner !== null && typeof inner === 'object' && !Array.isArray(inner)
      ? Object.fromEntries(Object.entries(inner).sort(([a], [b]) => (a < b ? -1 : 1)))
      : inner,
  )
}

/** Rows of this batch that are here already, by key. */
async function hereAlready(db: Queryable, table: ArchivedTable, rows: readonly Row[]): Promise<Map<string, Row>> {
  const columns = Object.fromEntries(table.columns.map((one) => [one.name, one]))
  const [first, ...more] = table.key
  if (!first) return new Map()
  const found = await db
    .select(columns)
    .from(table.table)
    .where(inArray(first, [...new Set(rows.map((row) => row[first.name]))]))
  const wanted = new Set(rows.map((row) => keyOf(table, row)))
  const here = found.map((row) => [keyOf(table, row), row] as const)
  return new Map(more.length > 0 ? here.filter(([key]) => wanted.has(key)) : here)
}

function isSame({ columns }: ArchivedTable, row: Row, here: Row): boolean {
  return columns.every(({ name }) => !(name in row) || canonical(normal(row[name])) === canonical(normal(here[name])))
}

/** Instants in one form, however they were written. */
function normal(value: unknown): unknown {
  return typeof value === 'string' && /^\d{4}-\d\d-\d\dT/.test(value) ? new Date(value).toISOString() : value
}

/** People of the studio an archive is of. */
async function staffIn(archive: OpenArchive): Promise<Row[]> {
  const table = archivedTables().find(({ name }) => name === 'staff')
  const people: Row[] = []
  if (table) for await (const batch of rowsIn(archive, table)) people.push(...batch)
  return people
}

/** How an archive merges into the studio of this database; null where there is none: then it is restored whole. */
async function mergeOf(db: Queryable, archive: OpenArchive, by: SignedIn | null): Promise<Merge | null> {
  const [own] = await db.select({ id: studio.id }).from(studio)
  if (!own) return null
  if (by?.studioId !== own.id) throw new ArchiveRefused('An archive is merged by a lead coach of the studio in use.')
  return Merge.into(db, archive.manifest.studio.id, by, await staffIn(archive))
}

/** Clients whose record was erased here: an older archive does not bring them back. */
async function erased(db: Queryable): Promise<Set<unknown>> {
  const rows = await db.select({ id: audit.clientId }).from(audit).where(eq(audit.kind, 'client.erased'))
  return new Set(rows.flatMap(({ id }) => id ?? []))
}

/**
 * How every row of an archive stands to what is here: new, the same, or another under the same id. Reads the whole
 * archive, so that a damaged one is refused before anything is stored.
 * @param by who would merge it; null: into an empty installation
 */
export async function compareArchive(
  db: Queryable,
  archive: OpenArchive,
  by: SignedIn | null,
  progress: Progress,
): Promise<Standing[]> {
  const merge = await mergeOf(db, archive, by)
  const total = archive.manifest.tables.reduce((sum, { rows }) => sum + rows, 0)
  let done = 0
  const standings: Standing[] = []
  for (const table of archivedTables()) {
    const standing: Standing = { table: table.name, fresh: 0, same: 0, conflict: 0 }
    for await (const batch of rowsIn(archive, table)) {
      progress.stopped()
      done += batch.length
      progress.tell({ done, total, of: 'rows' })
      if (merge && !MERGED.has(table.name)) continue
      const rows = merge ? await merge.under(db, table, batch) : batch
      const here = merge ? await hereAlready(db, table, rows) : new Map<string, Row>()
      for (const row of rows) {
        const other = here.get(keyOf(table, row))
        if (!other) standing.fresh += 1
        else if (isSame(table, row, other)) standing.same += 1
        else standing.conflict += 1
      }
    }
    if (!merge || MERGED.has(table.name)) standings.push(standing)
  }
  return standings
}

/** What a database says when a row cannot stand beside what is here (PostgreSQL's error codes: class 23, and values of class 22). */
export function clash(error: unknown): string | null {
  const cause = (error as { cause?: unknown }).cause ?? error
  const { code, constraint } = cause as { code?: string; constraint?: string }
  if (!code || (!code.startsWith('23') && !['22P02', '22007', '22008', '22003'].includes(code))) return null
  return constraint ? `it does not fit what is here (${constraint}).` : 'a value does not fit its column.'
}

/** Columns as the table's own keys name them. */
function forInsert({ table }: ArchivedTable, rows: readonly Row[]): Row[] {
  const names = new Map(Object.entries(getTableColumns(table)).map(([key, column]) => [column.name, key]))
  return rows.map((row) =>
    Object.fromEntries(Object.entries(row).map(([name, value]) => [names.get(name) ?? name, value])),
  )
}

/** Rows but for those of erased clients, and rows that name such a row. */
function withoutErased(rows: readonly Row[], gone: Set<unknown>): Row[] {
  if (gone.size === 0) return [...rows]
  return rows.filter((row) => {
    const isGone = Object.values(row).some((value) => gone.has(value))
    if (isGone && typeof row.id === 'string') gone.add(row.id)
    return !isGone
  })
}

async function insert(tx: Transaction, table: ArchivedTable, rows: readonly Row[]): Promise<void> {
  try {
    await tx.insert(table.table).values(forInsert(table, rows))
  } catch (error) {
    const what = clash(error)
    if (what) throw new ArchiveRefused(`A row of ${table.name} cannot be taken: ${what} Nothing was changed.`)
    throw error
  }
}

/** Every row of an archive, table by table, with its progress told. */
async function eachBatch(
  archive: OpenArchive,
  progress: Progress,
  work: (table: ArchivedTable, batch: Row[]) => Promise<void>,
): Promise<number> {
  const total = archive.manifest.tables.reduce((sum, { rows }) => sum + rows, 0)
  let done = 0
  for (const table of archivedTables())
    for await (const batch of rowsIn(archive, table)) {
      progress.stopped()
      done += batch.length
      progress.tell({ done, total, of: 'rows' })
      await work(table, batch)
    }
  return total
}

/** From this database form on, an archive brings the chain of its audit log (migration 0016 is the 17th). */
const CHAINED_SINCE = 17

/**
 * Restores an archive into an empty installation: every row, as it was. The chain of the audit log is checked before the
 * transaction ends. To be called in a transaction: it throws in the middle.
 */
async function restoreRows(tx: Transaction, archive: OpenArchive, progress: Progress) {
  await chainComesAlong(tx)
  const added = await eachBatch(archive, progress, async (table, batch) => {
    await insert(tx, table, batch)
  })
  if (archive.manifest.schema >= CHAINED_SINCE) {
    const { fault } = await checkRecord(tx, { studioId: archive.manifest.studio.id })
    if (fault) throw new ArchiveRefused(`The audit log of this archive is not whole: ${fault} Nothing was restored.`)
  }
  await chainLoose(tx)
  if (archive.manifest.schema < SPLIT_SINCE) await splitOldSites(tx, null)
  return { added, kept: 0, counts: null }
}

/** Adds what may come and is not here yet to a studio in use, marked as brought in. */
async function mergeRows(tx: Transaction, archive: OpenArchive, merge: Merge, importId: string, progress: Progress) {
  const gone = await erased(tx)
  let added = 0
  const total = await eachBatch(archive, progress, async (table, batch) => {
    if (!MERGED.has(table.name)) return
    const rows = await merge.under(tx, table, batch)
    const here = await hereAlready(tx, table, rows)
    const isNew = (row: Row) => !here.has(keyOf(table, row))
    const fresh = merge.allowed(table, withoutErased(rows, gone).filter(isNew))
    if (fresh.length === 0) return
    await insert(tx, table, fresh)
    await merge.mark(tx, importId, table, fresh)
    added += fresh.length
  })
  if (archive.manifest.schema < SPLIT_SINCE) await splitOldSites(tx, importId)
  return { added, kept: total - added, counts: merge.counts }
}

/**
 * Brings an archive in: restores it whole into an empty installation, merges it into a studio in use. To be called in a
 * transaction: it throws in the middle.
 * @param by who merges it and as which import, needed where there is a studio
 * @throws ArchiveRefused
 */
export async function importArchive(
  tx: Transaction,
  archive: OpenArchive,
  photos: PhotoStore,
  progress: Progress,
  by: MergedBy | null = null,
): Promise<{ added: number; kept: number; counts: Merge['counts'] | null }> {
  const merge = await mergeOf(tx, archive, by?.who ?? null)
  await importPhotos(archive, photos, progress)
  return merge && by ? mergeRows(tx, archive, merge, by.importId, progress) : restoreRows(tx, archive, progress)
}

/** Bytes first, rows after: pictures without a row are swept away, if the rows never come. */
async function importPhotos(archive: OpenArchive, photos: PhotoStore, progress: Progress): Promise<void> {
  let done = 0
  for (const photo of archive.manifest.photos) {
    progress.stopped()
    const content = await photoIn(archive, photo)
    if (!(await photos.get(photo.id))) await photos.put(photo.id, content)
    done += 1
    progress.tell({ done, total: archive.manifest.photos.length, of: 'photographs' })
  }
}
