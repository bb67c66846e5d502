import { hoursToMilliseconds } from 'date-fns'
import { clockIn } from '../../core/calendar'
import type { BackupStatus } from '../../shared/schemas/data'
import type { Store } from '../db/database'
import { studio } from '../db/schema'
import { DamageFound } from '../exchange/backup-checks'
import { readBackupState } from '../exchange/backup-state'
import { listBackups, makeBackup } from '../exchange/backups'
import { UNWATCHED, type Progress } from '../exchange/progress'
import { errorFacts, log } from '../http/log'
import type { PhotoStore } from '../ports/photo-store'
import { endSaid, recordEnd } from '../repositories/record-chain'
import { alone } from './alone'
import { tryRestoreWhenDue, type TryRestore } from './try-restore'

type Made = Awaited<ReturnType<typeof makeBackup>>

/** From this hour on, where the studio is, a day's backup is made. */
const FROM_HOUR = 2
/** A day and two hours: a night's backup that is late is missed. */
const MISSED_AFTER_MS = hoursToMilliseconds(26)

/** What is backed up, and to where. */
export interface BackingUp {
  store: Store
  photos: PhotoStore
  folder: string
  /** How a backup is restored as a trial. */
  tryRestore: TryRestore
}

/** Makes a backup now, here or not at all where another process is at it. */
export async function backupNow(at: BackingUp, progress: Progress, now = new Date()): Promise<Made | null> {
  let made: Made | null = null
  await alone(at.store, 'backup', async () => {
    made = await makeBackup(at.store, at.photos, at.folder, progress, now).catch((error: unknown) => {
      if (error instanceof DamageFound) log.fatal({ what: 'damage found', damage: error.message })
      throw error
    })
    await tryRestoreWhenDue(at.folder, at.tryRestore, now)
  })
  return made
}

/** Clocks of two machines may differ by so much. */
const AHEAD_MS = hoursToMilliseconds(1)

/** The last good backup, whether one was missed, and what the last checks of backups and database said. */
export async function backupStatus(
  { store, folder }: Pick<BackingUp, 'store' | 'folder'>,
  now = Date.now(),
): Promise<BackupStatus> {
  const all = await listBackups(folder)
  const [own] = await store.database.select({ since: studio.createdAt }).from(studio)
  const last = all[0] ?? null
  const since = Math.max(Date.parse(last?.at ?? '1970-01-01'), Date.parse(own?.since ?? new Date(now).toISOString()))
  const { trial, damage, counts } = await readBackupState(folder)
  // A clock was wrong then, or is now: how old this backup is cannot be said.
  const ahead = since - now > AHEAD_MS
  return {
    last: last && { ...last, record: counts[last.name]?.record ?? null },
    count: all.length,
    bytes: all.reduce((sum, { bytes }) => sum + bytes, 0),
    missed: ahead || now - since > MISSED_AFTER_MS,
    ahead,
    trial: trial && { name: trial.name, at: trial.at, rows: trial.rows, fault: trial.fault },
    damage,
  }
}

/** The last day the audit log's end was written into this process's log. */
let endLoggedOn = ''

/** Writes the newest hash of the audit log into the log once a day: kept there, it shows whether the log is written anew. */
export async function logRecordEnd({ store }: Pick<BackingUp, 'store'>, now = new Date()): Promise<void> {
  const [own] = await store.database.select({ studioId: studio.id, zone: studio.timeZone }).from(studio)
  if (!own) return
  const today = clockIn(now, own.zone).day
  if (endLoggedOn === today) return
  log.info({ what: 'audit log', end: endSaid(await recordEnd(store.database, own)) })
  endLoggedOn = today
}

/** Makes the night's backup where the day has none yet: asked every few minutes. Failures are logged. */
export async function backupWhenDue(at: BackingUp, now = new Date()): Promise<void> {
  try {
    const [own] = await at.store.database.select({ studioId: studio.id, zone: studio.timeZone }).from(studio)
    if (!own) return
    const here = clockIn(now, own.zone)
    const { damage } = await readBackupState(at.folder)
    const tried = [...(await listBackups(at.folder)), ...(damage ? [damage] : [])]
    const isDone = tried.some((one) => clockIn(one.at, own.zone).day === here.day)
    if (isDone || here.minute < FROM_HOUR * 60) return
    const made = await backupNow(at, UNWATCHED, now)
    if (!made) return
    // Kept outside the database: what the audit log's chain can be checked with.
    const end = await recordEnd(at.store.database, own)
    log.info({
      what: 'backup made',
      bytes: made.bytes,
      missingPhotographs: made.missing,
      record: endSaid(end),
    })
  } catch (error) {
    if (!(error instanceof DamageFound)) log.error({ what: 'backup failed', ...errorFacts(error) })
  }
}
