import { rm } from 'node:fs/promises'
import { readdir } from 'node:fs/promises'
import { join } from 'node:path'
import type { Erased } from '../../shared/schemas/data'
import { useStore } from '../db/use-database'
import { DOUBTFUL, goneBy, listBackups } from '../exchange/backups'
import type { ErasedTraces } from '../exchange/one-client'
import { usePorts } from '../ports'
import { backupFolder, useDataJobs } from './use-data'

/**
 * Removes what is left of erased clients outside the rows: photographs, copies of mails, uploads and files that were made,
 * and what the database's own files still hold of deleted rows.
 * @returns what still holds them, with when it goes
 */
export async function removeTraces(traces: readonly ErasedTraces[]): Promise<Erased> {
  const { photos, mail } = usePorts()
  for (const id of traces.flatMap(({ photoIds }) => photoIds)) await photos.remove(id)
  await mail.forget(traces.flatMap(({ mailIds }) => mailIds))
  const files = await useDataJobs().forgetFilesEverywhere()
  const folder = backupFolder()
  // A copy of a damaged database: it is replaced by the next one.
  for (const name of await readdir(folder).catch(() => []))
    if (name.startsWith(DOUBTFUL)) await rm(join(folder, name), { force: true })
  await (await useStore()).scrub()
  const backups = await listBackups(folder)
  return { backups: backups.map((one) => ({ name: one.name, goneBy: goneBy(one) })), files }
}
