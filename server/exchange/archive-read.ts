import { createHash } from 'node:crypto'
import { buffer, text } from 'node:stream/consumers'
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
import { migrationsCount } from '../db/database'
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

/** A row as an archive's line holds it, by column names. */
export type Row = Record<string, unknown>

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
export async function* rowsIn({ manifest, zip }: OpenArchive, table: ArchivedTable): AsyncGenerator<Row[]> {
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

/** A picture of an archive, checked. */
export async function photoIn(
  { zip }: OpenArchive,
  { id, bytes, sha256 }: ArchiveManifest['photos'][number],
): Promise<Buffer> {
  const refused = new ArchiveRefused(`photos/${id}.jpg is not what the manifest says it is: the file is damaged.`)
  if (zip.sizeOf(photoPath(id)) !== bytes || bytes > LARGEST_PHOTO) throw refused
  const content = await buffer(await zip.read(photoPath(id)))
  if (createHash('sha256').update(content).digest('hex') !== sha256) throw refused
  return content
}

/** Reads every part of an archive back against its manifest. @throws ArchiveRefused, ZipRefused */
export async function verifyArchive(archive: OpenArchive, progress: Progress): Promise<void> {
  for (const table of archivedTables()) for await (const _ of rowsIn(archive, table)) progress.stopped()
  for (const photo of archive.manifest.photos) {
    progress.stopped()
    await photoIn(archive, photo)
  }
}
