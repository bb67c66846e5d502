import { createWriteStream } from 'node:fs'
import { mkdir, open, readdir, rename, rm, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { addMonths, format, getISOWeek, getISOWeekYear, subDays, subMonths, subWeeks } from 'date-fns'
import { ARCHIVE_ENDING } from '../../exchange/archive/manifest'
import type { Store } from '../db/database'
import type { PhotoStore } from '../ports/photo-store'
import { openArchive, verifyArchive } from './archive-read'
import { writeArchive } from './archive-out'
import { dataKeys } from '../sealed/keys'
import { sealedFile } from '../sealed/sealed-file'
import type { Progress } from './progress'

/** A backup that was written whole and read back. */
export interface Backup {
  name: string
  /** ISO 8601 instant. */
  at: string
  bytes: number
}

const NAME = /^oak-pinch-(\d{4})-(\d\d)-(\d\d)T(\d\d)(\d\d)(\d\d)Z\.oakpinch\.zip(\.sealed)?$/

/** After the name of one that is sealed with a key. */
const SEALED_ENDING = '.sealed'

const nameAt = (at: Date, sealed: boolean) =>
  `oak-pinch-${at.toISOString().slice(0, 19).replaceAll(':', '')}Z${ARCHIVE_ENDING}${sealed ? SEALED_ENDING : ''}`

function instantOf(name: string): string | null {
  const [, year, month, day, hour, minute, second] = NAME.exec(name) ?? []
  return year ? `${year}-${month}-${day}T${hour}:${minute}:${second}.000Z` : null
}

/** Backups of a folder, the newest first. Only those that were verified have their name. */
export async function listBackups(folder: string): Promise<Backup[]> {
  const names = (await readdir(folder).catch(() => []))
    .filter((name) => NAME.test(name))
    .sort()
    .reverse()
  return Promise.all(
    names.map(async (name) => ({ name, at: instantOf(name) ?? '', bytes: (await stat(join(folder, name))).size })),
  )
}

/**
 * Names that are kept: the newest of each of the last 7 days, 4 weeks and 12 months that has one. Days are UTC's.
 * @example keptOf(['2026-11-26T02...', ...]) // of a year of nights: 7 + 3 or 4 + 11 or 12
 */
export function keptOf(instants: readonly string[], now: Date): Set<string> {
  const kept = new Set<string>()
  const newest = [...instants].sort().reverse()
  const local = (instant: string) => new Date(instant.slice(0, 19))
  const today = local(now.toISOString())
  const periods: [since: Date, of: (day: Date) => string][] = [
    [subDays(today, 7), (day) => format(day, 'yyyy-MM-dd')],
    [subWeeks(today, 4), (day) => `${getISOWeekYear(day)} ${getISOWeek(day)}`],
    [subMonths(today, 12), (day) => format(day, 'yyyy-MM')],
  ]
  for (const [since, of] of periods) {
    const seen = new Set<string>()
    for (const instant of newest) {
      const day = local(instant)
      if (day <= since || seen.has(of(day))) continue
      seen.add(of(day))
      kept.add(instant)
    }
  }
  // Whatever the calendar says, the newest one stays.
  if (newest[0]) kept.add(newest[0])
  return kept
}

/** Takes away what the rule does not keep. */
export async function removeOld(folder: string, now: Date): Promise<void> {
  const all = await listBackups(folder)
  const kept = keptOf(
    all.map(({ at }) => at),
    now,
  )
  for (const { name, at } of all) if (!kept.has(at)) await rm(join(folder, name), { force: true })
}

/**
 * Writes a backup, reads it back whole, and only then gives it its name; older ones go by the rule of `keptOf`. Cut off
 * anywhere, it leaves nothing that looks like a backup. Sealed where the environment names a key.
 */
export async function makeBackup(
  store: Pick<Store, 'snapshot'>,
  photos: Pick<PhotoStore, 'get'>,
  folder: string,
  progress: Progress,
  now = new Date(),
): Promise<Backup & { missing: number }> {
  await mkdir(folder, { recursive: true, mode: 0o700 })
  for (const name of await readdir(folder)) {
    if (!name.endsWith('.part')) continue
    // One that is being written changes by the second.
    const { mtimeMs } = await stat(join(folder, name)).catch(() => ({ mtimeMs: Date.now() }))
    if (Date.now() - mtimeMs > 60_000) await rm(join(folder, name), { force: true })
  }
  const keys = dataKeys()
  const name = nameAt(now, keys.current !== null)
  const part = join(folder, `${name}.${process.pid}.part`)
  try {
    const { missing } = await store.snapshot((db) =>
      writeArchive(
        db,
        photos,
        keys.current ? sealedFile(part, keys.current) : createWriteStream(part, { mode: 0o600 }),
        progress,
      ),
    )
    const handle = await open(part, 'r+')
    await handle.sync().finally(() => handle.close())
    const archive = await openArchive(part, keys)
    await verifyArchive(archive, progress).finally(() => archive.zip.close())
    await rename(part, join(folder, name))
    await removeOld(folder, now)
    const { size } = await stat(join(folder, name))
    return { name, at: instantOf(name) ?? '', bytes: size, missing: missing.length }
  } catch (error) {
    await rm(part, { force: true })
    throw error
  }
}

/** The day a backup is gone at the latest: none is kept for more than twelve months. */
export function goneBy({ at }: Pick<Backup, 'at'>): string {
  return format(addMonths(new Date(at.slice(0, 19)), 12), 'yyyy-MM-dd')
}
