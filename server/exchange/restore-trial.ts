import { count } from 'drizzle-orm'
import { migrationsCount, openStore } from '../db/database'
import { folderPhotos } from '../ports/photo-store'
import { importArchive } from './archive-in'
import { openArchive } from './archive-read'
import type { Trial } from './backup-state'
import { UNWATCHED } from './progress'
import { sentenceOf } from './sentences'
import { archivedTables } from './tables'

/**
 * Restores a backup into a database of its own in an empty folder, and counts what is there. Nothing else is touched; the
 * folder is the caller's to remove.
 * @param file the backup
 * @param scratch an empty folder
 */
export async function restoreTrial(file: string, scratch: string): Promise<Pick<Trial, 'schema' | 'rows' | 'fault'>> {
  const schema = migrationsCount()
  const archive = await openArchive(file)
  try {
    const store = await openStore(`${scratch}/data`)
    try {
      const photos = folderPhotos(`${scratch}/photos`)
      const { added } = await store.database.transaction((tx) => importArchive(tx, archive, photos, UNWATCHED))
      for (const { name, table } of archivedTables()) {
        const [{ rows } = { rows: 0 }] = await store.database.select({ rows: count() }).from(table)
        const wanted = archive.manifest.tables.find((one) => one.table === name)?.rows ?? 0
        if (rows !== wanted) return { schema, rows: added, fault: `${name} has ${rows} rows instead of ${wanted}.` }
      }
      return { schema, rows: added, fault: null }
    } finally {
      await store.close()
    }
  } catch (error) {
    return { schema, rows: 0, fault: sentenceOf(error) ?? 'The restore failed; the log says why.' }
  } finally {
    archive.zip.close()
  }
}
