import { once } from 'node:events'
import { createWriteStream } from 'node:fs'
import { mkdir, open, readdir, rename, rm, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { addMonths, format, getISOWeek, getISOWeekYear } from 'date-fns'
import { ARCHIVE_ENDING } from '../../exchange/archive/manifest'
import type { Store } from '../db/database'
import type { PhotoStore } from '../ports/photo-store'
import { openArchive, verifyArchive } from './archive-read'
import { writeArchive, type DatabaseCounts } from './archive-out'
import { asDamage, checkNothingLost, checkReferences } from './backup-checks'
import { changeBackupState, readBackupState } from './backup-state'
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

/** Backups of a folder, the one made last first. Only those that were verified have their name. */
export async function listBackups(folder: string): Promise<Backup[]> {
  const names = (await readdir(folder).catch(() => [])).filter((name) => NAME.test(name)).sort()
  const { order } = await readBackupState(folder)
  const place = new Map(order.map((name, i) => [name, i]))
  // Copied here by hand, or made by an earlier version: before those whose order is known.
  const inOrder = [
    ...names.filter((name) => !place.has(name)),
    ...names.filter((name) => place.has(name)).sort((a, b) => (place.get(a) ?? 0) - (place.get(b) ?? 0)),
  ].reverse()
  return Promise.all(
    inOrder.map(async (name) => ({ name, at: instantOf(name) ?? '', bytes: (await stat(join(folder, name))).size })),
  )
}

/** Kept in any case, counted by the order they were made in. */
const NEWEST = 7

/**
 * Backups that are kept: the last seven made, and of the newest 7 days, 4 weeks and 12 months that have one the last made.
 * Only their own days and their own order count: what the clock says now plays no part. Days are UTC's.
 * @param instants of the backups in the order they were made, the last first
 * @example keptOf(['2026-11-26T02...', ...]) // of a year of nights: 7 + 3 or 4 + 11 or 12
 */
export function keptOf(instants: readonly string[]): Set<string> {
  const kept = new Set<string>(instants.slice(0, NEWEST))
  const local = (instant: string) => new Date(instant.slice(0, 19))
  const periods: [count: number, of: (day: Date) => string][] = [
    [7, (day) => format(day, 'yyyy-MM-dd')],
    [4, (day) => `${getISOWeekYear(day)} ${getISOWeek(day)}`],
    [12, (day) => format(day, 'yyyy-MM')],
  ]
  for (const [count, of] of periods) {
    const seen = new Set<string>()
    for (const instant of instants) {
      const period = of(local(instant))
      if (seen.has(period)) continue
      if (seen.size === count) break
      seen.add(period)
      kept.add(instant)
    }
  }
  return kept
}

/**
 * Takes away what the rule does not keep, one at a time: the one made longest ago. A wrong clock, or a rule gone wrong,
 * costs one backup and is seen before it costs the next.
 */
export async function removeOld(folder: string): Promise<void> {
  const all = await listBackups(folder)
  const kept = keptOf(all.map(({ at }) => at))
  const oldest = all.findLast(({ at }) => !kept.has(at))
  if (oldest) await rm(join(folder, oldest.name), { force: true })
}

/** Takes away what a kill left; one that is being written changes by the second. */
async function removeCutOff(folder: string): Promise<void> {
  for (const name of await readdir(folder)) {
    if (!name.endsWith('.part')) continue
    const { mtimeMs } = await stat(join(folder, name)).catch(() => ({ mtimeMs: Date.now() }))
    if (Date.now() - mtimeMs > 60_000) await rm(join(folder, name), { force: true })
  }
}

/** Reads a written archive back: its parts, what its rows name, and that nothing of the last backup is lost. */
async function checkWritten(part: string, folder: string, counts: DatabaseCounts, progress: Progress): Promise<void> {
  const keys = dataKeys()
  const archive = await openArchive(part, keys)
  try {
    await verifyArchive(archive, progress)
    await checkReferences(archive, progress)
    const state = await readBackupState(folder)
    const [last] = await listBackups(folder)
    const then = last && state.counts[last.name]
    // Without counts of the last one, or with those of another database, deleted rows cannot be told from lost ones.
    if (!last || then?.database !== counts.database || state.accepted) return
    const since = (table: string) => (counts.deleted[table] ?? 0) - (then.deleted[table] ?? 0)
    const before = await openArchive(join(folder, last.name), keys)
    try {
      if (before.manifest.studio.id === archive.manifest.studio.id)
        await checkNothingLost(before, archive, since, progress)
    } finally {
      before.zip.close()
    }
  } finally {
    archive.zip.close()
  }
}

/** How a backup of a damaged database is kept: the last one only, and never counted as a backup. */
export const DOUBTFUL = 'doubtful.oakpinch.zip'

/**
 * Writes a backup, reads it back whole, and only then gives it its name; older ones go by the rule of `keptOf`. Cut off
 * anywhere, it leaves nothing that looks like a backup. Sealed where the environment names a key.
 * @throws DamageFound when the database holds less than it should or cannot be read: then no older one goes
 */
export async function makeBackup(
  store: Pick<Store, 'snapshot'>,
  photos: Pick<PhotoStore, 'get'>,
  folder: string,
  progress: Progress,
  now = new Date(),
): Promise<Backup & { missing: number }> {
  await mkdir(folder, { recursive: true, mode: 0o700 })
  await removeCutOff(folder)
  const keys = dataKeys()
  const name = nameAt(now, keys.current !== null)
  const part = join(folder, `${name}.${process.pid}.part`)
  const target = keys.current ? sealedFile(part, keys.current) : createWriteStream(part, { mode: 0o600 })
  let isWritten = false
  try {
    const { missing, counts } = await writeArchive(store, photos, target, progress)
    isWritten = true
    const handle = await open(part, 'r+')
    await handle.sync().finally(() => handle.close())
    await checkWritten(part, folder, counts, progress)
    await rename(part, join(folder, name))
    await noteMade(folder, name, counts)
    await removeOld(folder)
    const { size } = await stat(join(folder, name))
    return { name, at: instantOf(name) ?? '', bytes: size, missing: missing.length }
  } catch (error) {
    // A file that is still being opened or written would come back after it was removed.
    if (!target.closed) {
      target.destroy()
      await once(target, 'close').catch(() => undefined)
    }
    const damage = asDamage(error)
    if (damage && isWritten) await rename(part, join(folder, `${DOUBTFUL}${keys.current ? SEALED_ENDING : ''}`))
    else await rm(part, { force: true })
    if (!damage) throw error
    await changeBackupState(folder, { damage: { at: now.toISOString(), sentence: damage.message } })
    throw damage
  }
}

/** Notes the newest backup behind the others, and that the database was found whole. */
async function noteMade(folder: string, name: string, counts: DatabaseCounts): Promise<void> {
  const order = (await listBackups(folder)).map((one) => one.name).filter((one) => one !== name)
  const { counts: before } = await readBackupState(folder)
  const kept = Object.fromEntries(Object.entries(before).filter(([one]) => order.includes(one)))
  await changeBackupState(folder, {
    order: [...order.reverse(), name],
    counts: { ...kept, [name]: counts },
    damage: null,
    accepted: false,
  })
  for (const ending of ['', SEALED_ENDING]) await rm(join(folder, `${DOUBTFUL}${ending}`), { force: true })
}

/** The day a backup is gone at the latest while one is made each night: only the newest twelve months are kept. */
export function goneBy({ at }: Pick<Backup, 'at'>): string {
  return format(addMonths(new Date(at.slice(0, 19)), 12), 'yyyy-MM-dd')
}
