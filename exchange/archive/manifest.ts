import { z } from 'zod'

/** Version of the archive's form. Raised only when a part's meaning changes; new columns have their own count (`schema`). */
export const ARCHIVE_FORMAT = 1

/** Name of the part that describes the others; the last one in the file, because hashes are known only then. */
export const MANIFEST = 'manifest.json'

/** How an archive's file is called: `reedwater-2026-11-26.oakpinch.zip`. */
export const ARCHIVE_ENDING = '.oakpinch.zip'

const sha256 = z.string().regex(/^[\da-f]{64}$/)

/** A table's part, `tables/<name>.jsonl`: one row a line, oldest id first. */
const tablePart = z.strictObject({
  table: z.string().regex(/^[a-z_]{1,40}$/),
  rows: z.int().min(0),
  sha256,
})

/** A photograph, `photos/<id>.jpg`. */
const photoPart = z.strictObject({ id: z.uuid(), bytes: z.int().min(1), sha256 })

/** What `manifest.json` holds. */
export const archiveManifest = z.strictObject({
  format: z.int().min(1),
  /** Migrations of the database it was written from: an archive of more than a reader has comes from a newer version. */
  schema: z.int().min(1),
  studio: z.strictObject({ id: z.uuid(), name: z.string().max(200) }),
  /** In the order of reading: what others name stands before them. */
  tables: z.array(tablePart).max(200),
  photos: z.array(photoPart).max(1_000_000),
})
export type ArchiveManifest = z.output<typeof archiveManifest>

export const tablePath = (table: string) => `tables/${table}.jsonl`
export const photoPath = (id: string) => `photos/${id}.jpg`

/** An archive that cannot be taken, with a sentence for whoever brought it. */
export class ArchiveRefused extends Error {}

/**
 * The manifest of an archive's bytes.
 * @param schema migrations of the database it is to go into
 * @throws ArchiveRefused for what is no manifest, or one of a newer version
 * @example readManifest('{"format":2}', 15) // ArchiveRefused: This archive was written by a newer version ...
 */
export function readManifest(text: string, schema: number): ArchiveManifest {
  let value: unknown
  try {
    value = JSON.parse(text)
  } catch {
    throw new ArchiveRefused('This archive’s manifest cannot be read: the file is damaged or no archive of ours.')
  }
  const version = z.object({ format: z.number(), schema: z.number().optional() }).safeParse(value)
  if (version.success && (version.data.format > ARCHIVE_FORMAT || (version.data.schema ?? 0) > schema))
    throw new ArchiveRefused('This archive was written by a newer version: bring this installation up to date first.')
  const manifest = archiveManifest.safeParse(value)
  if (!manifest.success)
    throw new ArchiveRefused('This archive’s manifest does not have the form it needs: the file is damaged.')
  return manifest.data
}
