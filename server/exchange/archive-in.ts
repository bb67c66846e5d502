import { createHash } from 'node:crypto'
import { buffer, text } from 'node:stream/consumers'
import { eq, getTableColumns, inArray } from 'drizzle-orm'
import { linesIn } from '../../exchange/archive/lines'
import {
  ArchiveRefused,
  MANIFEST,
  photoPath,
  readManifest,
  tablePath,
  type ArchiveManifest,
} from '../../exchange/archive/manifest'
import { openZipIn, type ZipIn } from '../../exchange/archive/zip-in'
import { migrationsCount, type Queryable, type Transaction } from '../db/database'
import { audit, studio } from '../db/schema'
import type { PhotoStore } from '../ports/photo-store'
import { chainComesAlong, chainLoose } from '../repositories/record-chain'
import { dataKeys } from '../sealed/keys'
import { isSealed, openSealed } from '../sealed/sealed-file'
import { archivedTables, type ArchivedTable } from './tables'
import type { Progress } from './progress'

const GB = 1024 ** 3
const LIMITS = { parts: 1_000_300, partBytes: 32 * GB, allBytes: 512 * GB, ratio: 200 }
const BATCH = 500
const LARGEST_PHOTO = 64 * 1024 * 1024

/** An archive opened for reading, its manifest checked against its parts. */
export interface OpenArchive {
  manifest: ArchiveManifest
  zip: ZipIn
}

/**
 * Opens an archive of this disk, also one that is sealed with one of the keys.
 * @throws ZipRefused, ArchiveRefused, KeyRefused, SealBroken with a sentence
 */
export async function openArchive(file: string, keys = dataKeys()): Promise<OpenArchive> {
  const zip = await openZipIn((await isSealed(file)) ? await openSealed(file, keys) : file, LIMITS)
  try {
    if (!zip.paths.includes(MANIFEST))
      throw new ArchiveRefused('This ZIP is no archive of Oak Pinch: it has no manifest.')
    if (zip.sizeOf(MANIFEST) > 512 * 1024 * 1024)
      throw new ArchiveRefused('This archive’s manifest is too large to be one.')
    const manifest = readManifest(await text(await zip.read(MANIFEST)), migrationsCount())
    const named = [
      MANIFEST,
      ...manifest.tables.map(({ table }) => tablePath(table)),
      ...manifest.photos.map(({ id }) => photoPath(id)),
    ]
    if (named.length !== zip.paths.length || named.some((path) => !zip.paths.includes(path)))
      throw new ArchiveRefused('This archive’s parts are not those its manifest names: the file is damaged.')
    const known = new Set(archivedTables().map(({ name }) => name))
    const strange = manifest.tables.find(({ table }) => !known.has(table))
    if (strange) throw new ArchiveRefused(`This archive holds a table this version does not know: ${strange.table}.`)
    return { manifest, zip }
  } catch (error) {
    zip.close()
    throw error
  }
}

type Row = Record<string, unknown>

/** Where a row is wrong, said. */
function refuseRow(table: string, line: number, what: string): never {
  throw new ArchiveRefused(`tables/${table}.jsonl, line ${line}: ${what}`)
}

function readRow({ name, row }: ArchivedTable, line: number, content: string): Row {
  let value: unknown
  try {
    value = JSON.parse(content)
  } catch {
    refuseRow(name, line, 'this is not JSON.')
  }
  if (/\\u0000/.test(content)) refuseRow(name, line, 'this holds a character that is none.')
  const read = row.safeParse(value)
  if (read.success) return read.data
  const [issue] = read.error.issues
  return refuseRow(name, line, `${issue?.path.join('.') || 'the row'} does not have the form it needs.`)
}

/**
 * Rows of a part in batches, its hash and count checked at the end.
 * @throws ArchiveRefused
 */
async function* rowsIn({ manifest, zip }: OpenArchive, table: ArchivedTable): AsyncGenerator<Row[]> {
  const part = manifest.tables.find((one) => one.table === table.name)
  if (!part) return
  const hash = createHash('sha256')
  const stream = await zip.read(tablePath(table.name))
  stream.on('data', (chunk: Buffer) => hash.update(chunk))
  let line = 0
  let batch: Row[] = []
  for await (const content of linesIn(stream)) {
    line += 1
    batch.push(readRow(table, line, content))
    if (batch.length === BATCH) {
      yield batch
      batch = []
    }
  }
  if (batch.length > 0) yield batch
  if (line !== part.rows || hash.digest('hex') !== part.sha256)
    throw new ArchiveRefused(`tables/${table.name}.jsonl is not what the manifest says it is: the file is damaged.`)
}

/** A studio in use keeps its own: itself, and the chain of its record, which rows that come are added to. */
const OWN_ALONE: ReadonlySet<string> = new Set(['studio', 'audit_chain'])

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

/** Puts a row of another studio under this one. */
function adopt(table: ArchivedTable, rows: Row[], from: string, to: string): Row[] {
  if (from === to || !table.columns.some(({ name }) => name === 'studio_id')) return rows
  return rows.map((row) => (row.studio_id === from ? { ...row, studio_id: to } : row))
}

/** Clients whose record was erased here: an older archive does not bring them back. */
async function erased(db: Queryable): Promise<Set<unknown>> {
  const rows = await db.select({ id: audit.clientId }).from(audit).where(eq(audit.kind, 'client.erased'))
  return new Set(rows.flatMap(({ id }) => id ?? []))
}

/**
 * How every row of an archive stands to what is here: new, the same, or another under the same id. Reads the whole
 * archive, so that a damaged one is refused before anything is asked of anybody.
 */
export async function compareArchive(db: Queryable, archive: OpenArchive, progress: Progress): Promise<Standing[]> {
  const [own] = await db.select({ id: studio.id }).from(studio)
  const total = archive.manifest.tables.reduce((sum, { rows }) => sum + rows, 0)
  let done = 0
  const standings: Standing[] = []
  for (const table of archivedTables()) {
    const standing: Standing = { table: table.name, fresh: 0, same: 0, conflict: 0 }
    for await (const batch of rowsIn(archive, table)) {
      progress.stopped()
      const rows = own ? adopt(table, batch, archive.manifest.studio.id, own.id) : batch
      const here = own ? await hereAlready(db, table, rows) : new Map<string, Row>()
      for (const row of rows) {
        const other = here.get(keyOf(table, row))
        if (!other) standing.fresh += 1
        else if (isSame(table, row, other)) standing.same += 1
        else standing.conflict += 1
      }
      done += rows.length
      progress.tell({ done, total, of: 'rows' })
    }
    if (!own || !OWN_ALONE.has(table.name) || (table.name === 'studio' && own.id === archive.manifest.studio.id))
      standings.push(standing)
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

/** Rows but for those of erased clients, and whatever names such a row. */
function withoutErased({ name }: ArchivedTable, rows: readonly Row[], gone: Set<unknown>): Row[] {
  if (gone.size === 0 || name === 'audit') return [...rows]
  return rows.filter((row) => {
    const isGone = Object.values(row).some((value) => gone.has(value))
    if (isGone && typeof row.id === 'string') gone.add(row.id)
    return !isGone
  })
}

/** Brings every row in that is not here yet. To be called in a transaction: it throws in the middle. */
export async function importArchive(
  tx: Transaction,
  archive: OpenArchive,
  photos: PhotoStore,
  progress: Progress,
): Promise<{ added: number; kept: number }> {
  await importPhotos(archive, photos, progress)
  const [own] = await tx.select({ id: studio.id }).from(studio)
  const gone = await erased(tx)
  if (!own) await chainComesAlong(tx)
  const total = archive.manifest.tables.reduce((sum, { rows }) => sum + rows, 0)
  let done = 0
  let added = 0
  for (const table of archivedTables()) {
    const stays = own !== undefined && OWN_ALONE.has(table.name)
    for await (const batch of rowsIn(archive, table)) {
      progress.stopped()
      done += batch.length
      progress.tell({ done, total, of: 'rows' })
      if (stays) continue
      const rows = own ? adopt(table, batch, archive.manifest.studio.id, own.id) : batch
      const here = own ? await hereAlready(tx, table, rows) : new Map<string, Row>()
      const fresh = withoutErased(table, rows, gone).filter((row) => !here.has(keyOf(table, row)))
      if (fresh.length === 0) continue
      try {
        await tx.insert(table.table).values(forInsert(table, fresh))
      } catch (error) {
        const what = clash(error)
        if (what) throw new ArchiveRefused(`A row of ${table.name} cannot be taken: ${what} Nothing was changed.`)
        throw error
      }
      added += fresh.length
    }
  }
  await chainLoose(tx)
  return { added, kept: total - added }
}

/** A picture of an archive, checked. */
async function photoIn(
  { zip }: OpenArchive,
  { id, bytes, sha256 }: ArchiveManifest['photos'][number],
): Promise<Buffer> {
  const refused = new ArchiveRefused(`photos/${id}.jpg is not what the manifest says it is: the file is damaged.`)
  if (zip.sizeOf(photoPath(id)) !== bytes || bytes > LARGEST_PHOTO) throw refused
  const content = await buffer(await zip.read(photoPath(id)))
  if (createHash('sha256').update(content).digest('hex') !== sha256) throw refused
  return content
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

/** Reads every part of an archive back against its manifest. @throws ArchiveRefused, ZipRefused */
export async function verifyArchive(archive: OpenArchive, progress: Progress): Promise<void> {
  for (const table of archivedTables()) for await (const _ of rowsIn(archive, table)) progress.stopped()
  for (const photo of archive.manifest.photos) {
    progress.stopped()
    await photoIn(archive, photo)
  }
}
