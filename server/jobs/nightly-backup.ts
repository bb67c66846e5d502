import { hoursToMilliseconds } from 'date-fns'
import { clockIn } from '../../core/calendar'
import type { BackupStatus } from '../../shared/schemas/data'
import { useDatabase, useStore } from '../db/use-database'
import { studio } from '../db/schema'
import { listBackups, makeBackup } from '../exchange/backups'
import { UNWATCHED, type Progress } from '../exchange/progress'
import { errorFacts, log } from '../http/log'
import { usePorts } from '../ports'
import { alone } from './alone'
import { backupFolder } from './use-data'

/** From this hour on, where the studio is, a day's backup is made. */
const FROM_HOUR = 2
/** A day and two hours: a night's backup that is late is missed. */
const MISSED_AFTER_MS = hoursToMilliseconds(26)

/** Makes a backup now, here or not at all where another process is at it. */
export async function backupNow(progress: Progress): Promise<Awaited<ReturnType<typeof makeBackup>> | null> {
  let made: Awaited<ReturnType<typeof makeBackup>> | null = null
  await alone('backup', async () => {
    made = await makeBackup(await useStore(), usePorts().photos, backupFolder(), progress)
  })
  return made
}

/** The last good backup, and whether one was missed. */
export async function backupStatus(now = Date.now()): Promise<BackupStatus> {
  const all = await listBackups(backupFolder())
  const [own] = await (await useDatabase()).select({ since: studio.createdAt }).from(studio)
  const last = all[0] ?? null
  const since = Math.max(Date.parse(last?.at ?? '1970-01-01'), Date.parse(own?.since ?? new Date(now).toISOString()))
  return {
    last,
    count: all.length,
    bytes: all.reduce((sum, { bytes }) => sum + bytes, 0),
    missed: now - since > MISSED_AFTER_MS,
  }
}

/** Makes the night's backup where the day has none yet. */
export async function backupWhenDue(now = new Date()): Promise<void> {
  try {
    const [own] = await (await useDatabase()).select({ zone: studio.timeZone }).from(studio)
    if (!own) return
    const here = clockIn(now, own.zone)
    const [last] = await listBackups(backupFolder())
    const isDone = last !== undefined && clockIn(last.at, own.zone).day === here.day
    if (isDone || here.minute < FROM_HOUR * 60) return
    const made = await backupNow(UNWATCHED)
    if (made) log.info({ what: 'backup made', bytes: made.bytes, missingPhotographs: made.missing })
  } catch (error) {
    log.error({ what: 'backup failed', ...errorFacts(error) })
  }
}
